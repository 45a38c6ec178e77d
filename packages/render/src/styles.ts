import type { Message } from '@velarium/contract';

/**
 * The sheet of one message. Everything is scoped by its shadow root; the host is reset so no style of the page
 * is inherited. Logical properties throughout, so right-to-left needs no second sheet. Sizes are in `em` of a
 * 16 px root, so text scales with the visitor's zoom and not with the page's own root size.
 */
export function styleSheetText(message: Message): string {
  const { palette, width } = message;
  return `
:host{all:initial!important;display:block!important;position:fixed!important;inset:0!important;z-index:2147483000!important;pointer-events:none!important;contain:layout style!important}
*{box-sizing:border-box;margin:0;padding:0}
.layer{position:absolute;inset:0;display:grid;padding:16px;pointer-events:none;font:16px/1.5 ui-sans-serif,system-ui,-apple-system,"Segoe UI",sans-serif;color:${palette.ink}}
.layer[data-blocking]{pointer-events:auto}
.backdrop{position:absolute;inset:0;background:${palette.backdrop};opacity:.62}
.box{position:relative;pointer-events:auto;background:${palette.surface};inline-size:min(${width}px,100%);max-block-size:100%;overflow:auto;overscroll-behavior:contain;border-radius:14px;padding:28px;display:grid;gap:14px;align-content:start;box-shadow:0 1px 2px #0003,0 12px 40px #0004;outline:none}
${placement(message)}
.box[data-format=flyin],.box[data-format=popup]{padding:22px}
.box[data-format=slidein]{border-radius:0;align-content:center}
.layer[data-format=slidein],.layer[data-format=bar],.layer[data-format=fullscreen]{padding:0}
.layer[data-format=slidein] .box{block-size:${/^(start|end)$/.test(message.anchor) ? '100%' : 'auto'};inline-size:${/^(start|end)$/.test(message.anchor) ? `min(${width}px,100%)` : '100%'}}
.box[data-format=fullscreen]{inline-size:100%;block-size:100%;border-radius:0;place-content:center;justify-items:center;text-align:center}
.box[data-format=fullscreen]>*{max-inline-size:620px}
.box[data-format=bar]{inline-size:100%;border-radius:0;display:flex;flex-wrap:wrap;align-items:center;justify-content:center;gap:8px 20px;padding:12px 56px 12px 20px}
h2{font-size:1.5em;line-height:1.2;font-weight:680;letter-spacing:-.01em;padding-inline-end:36px;text-wrap:balance;overflow-wrap:anywhere}
.box[data-format=flyin] h2,.box[data-format=popup] h2{font-size:1.2em}
.box[data-format=bar] h2{font-size:1em}
.box:is([data-format=bar],[data-format=fullscreen]) h2{padding:0}
p{overflow-wrap:anywhere;min-block-size:1.5em}
p+p{margin-block-start:.6em}
.small{font-size:.8125em}
form{display:grid;gap:12px;inline-size:100%}
.box[data-format=bar] form{display:flex;flex-wrap:wrap;inline-size:auto;align-items:end}
label{display:grid;gap:4px;font-size:.875em;font-weight:560;text-align:start}
input[type=text],input[type=email],input[type=tel]{font:inherit;font-size:16px;font-weight:400;color:#1d2433;background:#fff;border:1px solid #6b7280;border-radius:8px;padding:9px 12px;min-block-size:44px;inline-size:100%}
input[aria-invalid=true]{border:2px solid #b3261e}
.agree{grid-template-columns:24px 1fr;align-items:start;gap:8px;font-weight:400;font-size:.8125em}
.agree input{inline-size:24px;block-size:24px;accent-color:${palette.accent}}
.wrong{font-size:.8125em;font-weight:560;background:#fdecea;color:#8c1d18;border-radius:6px;padding:4px 8px}
.wrong:empty{display:none}
.act{font:inherit;font-weight:620;color:${palette.onAccent};background:${palette.accent};border:0;border-radius:8px;padding:10px 18px;min-block-size:44px;cursor:pointer;text-decoration:none;display:inline-flex;align-items:center;justify-content:center;justify-self:start;text-align:center}
form .act{justify-self:stretch}
.act:hover{filter:brightness(1.08)}
.act[disabled]{opacity:.6;cursor:progress}
.box[data-format=bar] .act{padding:6px 14px;min-block-size:36px}
.close{position:absolute;inset-block-start:10px;inset-inline-end:10px;inline-size:36px;block-size:36px;border:0;border-radius:50%;background:transparent;color:inherit;cursor:pointer;display:grid;place-items:center}
.close svg{inline-size:14px;block-size:14px;stroke:currentColor;stroke-width:2;stroke-linecap:round;fill:none}
.close:hover{background:#8883}
:focus-visible{outline:3px solid ${palette.accent};outline-offset:2px}
.act:focus-visible,.box:focus-visible{outline-color:${palette.ink}}
.quiet{position:absolute;inline-size:1px;block-size:1px;overflow:hidden;clip-path:inset(50%);white-space:nowrap}
.layer[data-entering] .backdrop{animation:fade .18s ease-out}
.layer[data-entering] .box{animation:enter .22s cubic-bezier(.2,.7,.3,1)}
@keyframes fade{from{opacity:0}}
@keyframes enter{from{opacity:0;transform:translateY(${message.anchor.startsWith('top') ? '-' : ''}14px)}}
@media (prefers-reduced-motion:reduce){.layer[data-entering] .backdrop,.layer[data-entering] .box{animation:none}}
@media (max-width:480px){.box{padding:22px}.box[data-format=bar]{padding:10px 52px 10px 16px}}`;
}

const ALIGN = { top: 'start', middle: 'center', bottom: 'end' } as const;

/** Where the box sits in the layer, from the anchor's two words. */
function placement({ anchor }: Message): string {
  const block = anchor.startsWith('top')
    ? ALIGN.top
    : anchor.startsWith('bottom')
      ? ALIGN.bottom
      : ALIGN.middle;
  const inline = anchor.endsWith('start') ? 'start' : anchor.endsWith('end') ? 'end' : 'center';
  return `.layer{align-items:${block};justify-items:${inline}}`;
}
