import { SOURCES } from '@velarium/contract/values';
import {
  isPretending,
  NOTHING_PRETENDED,
  type Pretended,
  pretendedWords,
  readPretended,
} from '@velarium/core/explain';
import { element } from '@velarium/render/dom';

const SOURCE_NAMES: Readonly<Record<(typeof SOURCES)[number], string>> = {
  direct: 'Nowhere known',
  search: 'A search',
  social: 'A social network',
  mail: 'A mail',
  site: 'Another site',
};

/** Where it is kept: in the tab, and no longer than the preview. */
const NAME = 'velarium-pretended';

export function readKept(): Pretended {
  try {
    return readPretended(JSON.parse(sessionStorage.getItem(NAME) ?? 'null'));
  } catch {
    return NOTHING_PRETENDED;
  }
}
export const keep = (pretended: Pretended): void => sessionStorage.setItem(NAME, JSON.stringify(pretended));
export const forget = (): void => sessionStorage.removeItem(NAME);

type Field = HTMLInputElement | HTMLSelectElement;

function labelled<Control extends Field>(words: string, control: Control): [HTMLElement, Control] {
  control.setAttribute('aria-label', words);
  return [element(document, 'label', {}, [element(document, 'span', {}, [words]), control]), control];
}

const input = (attributes: Readonly<Record<string, string>>, value: string): HTMLInputElement => {
  const made = element(document, 'input', attributes);
  made.value = value;
  return made;
};

function choice(
  options: readonly (readonly [value: string, words: string])[],
  value: string,
): HTMLSelectElement {
  const made = element(
    document,
    'select',
    {},
    options.map(([own, words]) => element(document, 'option', { value: own }, [words])),
  );
  made.value = value;
  return made;
}

/** The number in a field; `null` where there is none. */
const numberIn = ({ value }: Field): number | null => (value.trim() === '' ? null : Number(value));

/** The form by which a visit is begun as somebody else. `begin` is called with what is to be pretended. */
export function drawPretend(pretended: Pretended, begin: (pretended: Pretended) => void): HTMLElement {
  const { session, source, referrer, signedIn, basket, country } = pretended;
  const [sessionRow, sessionField] = labelled(
    'Session number',
    input({ type: 'number', min: '1', max: '1000', placeholder: 'as it is' }, String(session ?? '')),
  );
  const [sourceRow, sourceField] = labelled(
    'Came from',
    choice([['', 'As it is'], ...SOURCES.map((one) => [one, SOURCE_NAMES[one]] as const)], source ?? ''),
  );
  const [hostRow, hostField] = labelled(
    'Host they came from',
    input({ type: 'text', maxlength: '253', placeholder: 'as it is', spellcheck: 'false' }, referrer ?? ''),
  );
  const [signRow, signField] = labelled(
    'Sign-in',
    choice(
      [
        ['', 'As the page says'],
        ['in', 'Signed in'],
        ['out', 'Signed out'],
      ],
      signedIn === null ? '' : signedIn ? 'in' : 'out',
    ),
  );
  const [itemsRow, itemsField] = labelled(
    'Things in the basket',
    input({ type: 'number', min: '0', placeholder: 'as the page says' }, String(basket?.items ?? '')),
  );
  const [totalRow, totalField] = labelled(
    'Worth of the basket',
    input({ type: 'number', min: '0', step: '0.01', placeholder: '0' }, String(basket?.total ?? '')),
  );
  const [countryRow, countryField] = labelled(
    'Country, two letters',
    input({ type: 'text', maxlength: '2', pattern: '[A-Za-z]{2}', placeholder: 'as it is' }, country ?? ''),
  );
  const form = element(document, 'form', {}, [
    sessionRow,
    sourceRow,
    hostRow,
    signRow,
    itemsRow,
    totalRow,
    countryRow,
    element(document, 'button', { type: 'submit' }, ['Begin the visit as this visitor']),
  ]);
  form.addEventListener('submit', (event) => {
    event.preventDefault();
    const items = numberIn(itemsField);
    begin(
      readPretended({
        session: numberIn(sessionField),
        source: sourceField.value,
        referrer: hostField.value.trim() === '' ? null : hostField.value,
        signedIn: signField.value === '' ? null : signField.value === 'in',
        basket: items === null ? null : { items, total: numberIn(totalField) ?? 0 },
        country: countryField.value,
      }),
    );
  });
  const parts: Node[] = [element(document, 'summary', {}, ['Pretend to be somebody else']), form];
  if (isPretending(pretended)) {
    const back = element(document, 'button', { type: 'button' }, ['Be myself again']);
    back.addEventListener('click', () => begin(NOTHING_PRETENDED));
    parts.push(back);
  }
  const fold = element(document, 'details', { class: 'pretend' }, parts);
  return isPretending(pretended)
    ? element(document, 'div', {}, [
        element(document, 'p', { class: 'pretended' }, [
          `You pretend to be a visitor ${pretendedWords(pretended)}.`,
        ]),
        fold,
      ])
    : fold;
}
