import type { Block, ColourValue, Device, LookStyle, Message, Palette, StepRole } from '@velarium/contract';
import { nightOf } from '../look/night.ts';
import { colourOf, paletteOf, styleOn } from '../look/resolve.ts';
import { isInterrupting } from '../message/placement.ts';
import { isUntouched } from '../message/plain.ts';
import { allBlocks, changeBlock } from '../message/walk.ts';
import { A_DEVICE_WORDS } from '../sentence/words.ts';
import { closeContrast } from './close-sign.ts';
import { contrastRatio, LEAST_LARGE_CONTRAST, LEAST_TEXT_CONTRAST, nearestPassing } from './contrast.ts';
import type { DesignFinding } from './finding.ts';
import { coverage, MOST_COVERED } from './measure.ts';
import { readingEase } from './reading-ease.ts';
import { hasWords, textOfStep, textsOf, wordCount } from './text-of.ts';
import { stuckStep } from './way-out.ts';
import { wordingFindings } from './wording.ts';

export interface DesignInput {
  readonly message: Message;
  readonly look: LookStyle;
  /** Devices it may open on. */
  readonly devices: readonly Device[];
  /** Bytes a phone loads for each picture, where known. */
  readonly weightOf?: (picture: string) => number | undefined;
}

/** Heaviest a picture should be for a phone, bytes (common practice). */
export const PICTURE_BUDGET = 150_000;
/** More words than this on a phone are not read (common practice). */
const PHONE_WORDS = 70;
/** Harder to read than this is hard for most (Flesch's own bands). */
const LEAST_EASE = 50;
const CONSENT_WORDS =
  'I agree that my details are kept to answer me, and that I can have them deleted at any time.';

/** Everything worth a look in a message, the gravest first. */
export function designFindings(input: DesignInput): DesignFinding[] {
  const { message } = input;
  const found = [
    ...wholeFindings(input),
    ...wayOutFindings(input),
    ...wordingFindings(message),
    ...allBlocks(message).flatMap((block) => blockFindings(block, input)),
  ];
  const rank = { stop: 0, warn: 1, hint: 2 };
  return found.sort((a, b) => rank[a.severity] - rank[b.severity]);
}

function wholeFindings({ message, look, devices }: DesignInput): DesignFinding[] {
  const found: DesignFinding[] = [];
  const palette = paletteOf(message, look);
  if (!hasWords(message)) {
    found.push({
      code: 'message.empty',
      severity: 'stop',
      text: 'The message says nothing. Write a heading or a text.',
      blockId: null,
    });
  }
  for (const [role, ground, what, least] of [
    ['ink', 'surface', 'The text', LEAST_TEXT_CONTRAST],
    ['accentText', 'accent', 'The words on buttons', LEAST_TEXT_CONTRAST],
    ['fieldText', 'field', 'What people write in fields', LEAST_TEXT_CONTRAST],
  ] as const) {
    const finding = contrastFinding(what, palette[role], palette[ground], least);
    if (finding) {
      found.push({
        ...finding,
        blockId: null,
        mend: {
          label: 'Take the nearest readable colour',
          apply: (old) => ({
            ...old,
            palette: { ...old.palette, [role]: nearestPassing(palette[role], palette[ground], least) },
          }),
        },
      });
    }
  }
  const [first] = message.steps;
  if (first && devices.includes('mobile')) {
    const words = wordCount(textOfStep(first));
    if (words > PHONE_WORDS) {
      found.push({
        code: 'phone.words',
        severity: 'hint',
        text: `${words} words are many for a phone; ${PHONE_WORDS} are read. Shorten them, or hide a block on phones.`,
        blockId: null,
      });
    }
    const share = coverage(message, first, look, 'mobile');
    if (!isInterrupting(message.format) && share > MOST_COVERED) {
      found.push({
        code: 'phone.covered',
        severity: 'warn',
        text: `It covers about ${Math.round(share * 100)} % of a phone’s window, so the page behind cannot be used. Make it smaller on phones, or leave phones out under Reach.`,
        blockId: null,
      });
    }
  }
  const { afterSeconds } = message.close;
  if (afterSeconds !== null && allBlocks(message).some(({ kind }) => kind === 'form')) {
    found.push({
      code: 'form.closes',
      severity: 'warn',
      text: `It holds a form and closes by itself after ${afterSeconds} s. It waits once somebody has begun to write, but who reads first is cut off.`,
      blockId: null,
      mend: {
        label: 'Let it stay',
        apply: (old) => ({ ...old, close: { ...old.close, afterSeconds: null } }),
      },
    });
  }
  // What is read in sentences; labels and buttons are none, and would pass for very short ones.
  const ease = readingEase(
    allBlocks(message)
      .filter(({ kind }) => kind === 'text')
      .flatMap(textsOf)
      .join('\n'),
  );
  if (ease !== undefined && ease < LEAST_EASE) {
    found.push({
      code: 'words.ease',
      severity: 'hint',
      text: `Its words are hard to read: ${Math.round(ease)} of 100 (Flesch); ${LEAST_EASE} is plain. Shorter sentences and words help.`,
      blockId: null,
    });
  }
  return found;
}

const STEP_WORDS: Readonly<Record<StepRole, string>> = {
  first: 'its first step',
  success: 'the step after sending',
  refused: 'the step after a no',
  other: 'one of its steps',
};

/** The law of the way out: from every step, on each device, by something that can be seen and that a thumb can find. */
function wayOutFindings({ message, look, devices }: DesignInput): DesignFinding[] {
  const { close } = message;
  const found: DesignFinding[] = [];
  const { ink, surface } = paletteOf(message, look);
  const seenInk =
    contrastRatio(ink, surface) >= LEAST_LARGE_CONTRAST
      ? 'ink'
      : nearestPassing(ink, surface, LEAST_LARGE_CONTRAST);
  const onGround = { colour: seenInk, hoverColour: seenInk, ground: 'surface' } as const;
  const add = (
    severity: DesignFinding['severity'],
    code: string,
    text: string,
    mend: { label: string; close: Partial<Message['close']> },
  ) =>
    found.push({
      code,
      severity,
      text,
      blockId: null,
      mend: {
        label: mend.label,
        apply: (old) => ({ ...old, close: { ...old.close, ...mend.close } }),
      },
    });
  if (close.place !== 'hidden' && close.sign === 'picture' && close.picture === null)
    add('warn', 'close.picture', 'No picture is chosen for the close button, so its word is shown.', {
      label: 'Show the sign',
      close: { sign: 'cross' },
    });
  for (const device of devices) {
    const stuck = stuckStep(message, look, device);
    if (!stuck) continue;
    add(
      'stop',
      'way-out',
      `On ${A_DEVICE_WORDS[device]} there is no way out of ${STEP_WORDS[stuck.role]}: no close button that can be seen, and no other button there that leads out.`,
      {
        label: 'Show the close button',
        close: { place: 'inside', sign: 'cross', ...onGround },
      },
    );
    break;
  }
  if (close.place === 'hidden') return found;
  for (const device of devices) {
    const worst = Math.min(...message.steps.map((step) => closeContrast(message, step, look, device)));
    if (worst >= LEAST_LARGE_CONTRAST) continue;
    add(
      'warn',
      'close.contrast',
      `The close button’s contrast with what can lie behind it on ${A_DEVICE_WORDS[device]} is ${worst.toFixed(1)}; ${LEAST_LARGE_CONTRAST} is the least people can make out.`,
      { label: 'Give it a ground', close: onGround },
    );
    break;
  }
  return found;
}

function contrastFinding(
  what: string,
  ink: string,
  ground: string,
  least: number,
): Pick<DesignFinding, 'code' | 'severity' | 'text'> | undefined {
  const ratio = contrastRatio(ink, ground);
  if (ratio >= least) return undefined;
  return {
    code: 'contrast',
    severity: 'warn',
    text: `${what} has a contrast of ${ratio.toFixed(1)}; ${least} is the least people can read well.`,
  };
}

const plainGround = (block: Block, fallback: ColourValue): ColourValue =>
  block.style.all.ground?.kind === 'colour' ? block.style.all.ground.colour : fallback;

function blockFindings(block: Block, { message, look, weightOf, devices }: DesignInput): DesignFinding[] {
  const found: DesignFinding[] = [];
  const palette: Palette = paletteOf(message, look);
  const add = (
    severity: DesignFinding['severity'],
    code: string,
    text: string,
    mend?: { label: string; change: (block: Block) => Block },
  ) =>
    found.push({
      code,
      severity,
      text,
      blockId: block.id,
      ...(mend
        ? { mend: { label: mend.label, apply: (old: Message) => changeBlock(old, block.id, mend.change) } }
        : {}),
    });
  const boxGround = message.style.all.ground;
  const under =
    boxGround === undefined ? 'surface' : boxGround.kind === 'colour' ? boxGround.colour : undefined;
  const own = block.style.all.colour;
  if (under !== undefined && (own !== undefined || block.style.all.ground?.kind === 'colour')) {
    const inkValue = own ?? (block.kind === 'button' ? 'accentText' : 'ink');
    const groundValue = plainGround(
      block,
      block.kind === 'button' && block.tone === 'main' ? 'accent' : under,
    );
    const least = (block.style.all.textSize ?? 0) >= 24 ? LEAST_LARGE_CONTRAST : LEAST_TEXT_CONTRAST;
    const [ink, ground] = [colourOf(inkValue, palette), colourOf(groundValue, palette)];
    const withColour = (colour: ColourValue) => (old: Block) => ({
      ...old,
      style: { ...old.style, all: { ...old.style.all, colour } },
    });
    const finding = contrastFinding('This block', ink, ground, least);
    const night = message.darkens ? nightOf(palette) : palette;
    const atNight = contrastFinding(
      'At night this block',
      colourOf(inkValue, night),
      colourOf(groundValue, night),
      least,
    );
    if (finding) {
      add(finding.severity, finding.code, finding.text, {
        label: 'Take the nearest readable colour',
        change: withColour(nearestPassing(ink, ground, least)),
      });
    } else if (atNight) {
      add(
        atNight.severity,
        'contrast.night',
        atNight.text,
        // A role changes with the night; a colour of its own does not.
        inkValue.startsWith('#') && !groundValue.startsWith('#')
          ? { label: 'Take the text colour of the Look', change: withColour('ink') }
          : undefined,
      );
    }
  }
  if (isUntouched(block))
    add(
      'stop',
      'words.placeholder',
      `“${textsOf(block)[0]?.trim()}” is what every new block begins with. Write your own words, or take it out.`,
    );
  switch (block.kind) {
    case 'picture': {
      if (block.picture === null)
        add('warn', 'picture.none', 'No picture is chosen yet, so nothing is shown here.');
      else if (!block.isDecoration && block.alt.trim() === '') {
        add('warn', 'picture.alt', 'Say what the picture shows, for those who cannot see it.', {
          label: 'It only decorates',
          change: (old) => ({ ...old, isDecoration: true }) as Block,
        });
      }
      const weight = block.picture === null ? undefined : weightOf?.(block.picture);
      if (weight !== undefined && weight > PICTURE_BUDGET) {
        add(
          'hint',
          'picture.heavy',
          `A phone loads ${Math.round(weight / 1000)} kB for this picture; ${PICTURE_BUDGET / 1000} kB is a good measure.`,
        );
      }
      break;
    }
    case 'button':
      if (block.label.trim() === '')
        add('stop', 'button.label', 'A button has no words. Write what it does.');
      if (block.action.kind === 'link' && block.action.address === '') {
        add('warn', 'button.address', `“${block.label}” has no address, so it only closes the message.`);
      }
      if (block.action.kind === 'step') {
        const { step } = block.action;
        if (!message.steps.some(({ id }) => id === step))
          add('warn', 'button.step', `“${block.label}” leads to a step that is gone. Choose another.`);
      }
      for (const device of devices) {
        const { height } = styleOn(block.style, device);
        if (height?.unit === 'px' && height.value < 24) {
          add('warn', 'target.size', 'A button lower than 24 px is hard to hit (WCAG 2.2, 2.5.8).', {
            label: 'Let it be as high as its words',
            change: (old) => ({ ...old, style: withoutHeight(old.style) }),
          });
          break;
        }
      }
      break;
    case 'form':
      for (const field of block.fields) {
        if (field.label.trim() === '' && field.kind !== 'hidden')
          add('warn', 'form.label', 'A field has no label, so nobody knows what to write there.');
        if ((field.kind === 'select' || field.kind === 'ticks') && !field.options?.length)
          add('warn', 'form.options', `“${field.label}” has nothing to choose from.`);
      }
      if (block.consentText.trim() === '') {
        add('warn', 'form.consent', 'The form asks for no consent. Write the words people agree to.', {
          label: 'Write plain words for it',
          change: (old) => ({ ...old, consentText: CONSENT_WORDS }) as Block,
        });
      }
      break;
    case 'film':
    case 'frame':
      if (block.address === '')
        add('warn', `${block.kind}.address`, 'It has no address yet, so nothing is shown here.');
      if (block.title.trim() === '')
        add('warn', `${block.kind}.title`, 'Give it a title: a screen reader says it.');
      break;
    case 'code':
      if (block.code.trim() === '') add('stop', 'code.empty', 'There is no code to copy. Write it.');
      break;
    default:
  }
  return found;
}

const without = ({ height: _height, ...style }: Block['style']['all']) => style;
const withoutHeight = ({ all, tablet, mobile }: Block['style']): Block['style'] => ({
  all: without(all),
  tablet: without(tablet),
  mobile: without(mobile),
});
