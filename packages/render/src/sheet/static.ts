import type { LookStyle } from '@velarium/contract';
import { fontStack } from '@velarium/core';

/**
 * What every message is drawn with. Everything is scoped by the shadow root; the host is reset so no style of the page
 * is inherited. Logical properties throughout, so right-to-left needs no second sheet.
 */
export const staticCss = (look: LookStyle): string => `
*{box-sizing:border-box;margin:0;padding:0}
.layer{--dir:1;position:absolute;inset:0;display:grid;grid-template:minmax(0,1fr)/minmax(0,1fr);pointer-events:none;font-family:${fontStack(look.fonts.text)};line-height:1.5;color:var(--ink)}
.layer[dir=rtl]{--dir:-1}
.layer[data-blocking]{pointer-events:auto}
.backdrop{position:absolute;inset:0}
.box{position:relative;pointer-events:auto;display:grid;grid-template-rows:minmax(0,auto);grid-template-columns:minmax(0,1fr);max-block-size:100%;outline:none}
.card{position:relative;max-block-size:100%;min-block-size:0;overflow:auto;overscroll-behavior:contain;block-size:100%}
.inner{position:relative;display:grid;grid-template-columns:minmax(0,1fr);align-content:center;min-block-size:100%}
h2{font:680 ${((look.scale / 100) ** 2).toFixed(3)}em/1.2 ${fontStack(look.fonts.heading)};letter-spacing:-.01em;text-wrap:balance;overflow-wrap:anywhere}
.layer:is([data-format=flyin],[data-format=popup]) h2{font-size:${(look.scale / 100).toFixed(3)}em}
p,li{overflow-wrap:anywhere;min-block-size:1.5em}
p+p{margin-block-start:.6em}
.small{font-size:.8125em}
.inner a:not(.act){color:inherit;text-underline-offset:.2em}
.s{font-size:.8125em}.l{font-size:1.25em}
ul,ol{padding-inline-start:1.5em;display:grid;gap:.35em}
.tick{list-style:none}
.tick>li{position:relative}
.tick>li::before{content:"";position:absolute;inset-inline-start:-1.4em;inset-block-start:.35em;inline-size:.42em;block-size:.8em;border:solid var(--accent);border-width:0 .16em .16em 0;transform:rotate(42deg)}
.pic{display:block;position:relative;overflow:hidden;min-inline-size:0}
.pic img{display:block;inline-size:100%;block-size:100%;object-fit:cover}
hr{border:0;border-block-start:1px solid var(--line);inline-size:100%}
.columns{display:grid;gap:14px;inline-size:100%;align-items:center}
.column{display:grid;gap:inherit;align-content:start;min-inline-size:0}
form{display:grid;grid-template-columns:repeat(2,minmax(0,1fr));gap:12px;inline-size:100%}
form>*{grid-column:1/-1}
form>.beside,form>:has(+.beside):not(.beside){grid-column:auto;align-content:end}
label,fieldset{display:grid;gap:4px;font-size:.875em;font-weight:560;text-align:start;border:0;min-inline-size:0}
.field{font:inherit;font-size:max(16px,1em);font-weight:400;color:var(--fieldText);background:var(--field);padding:9px 12px;min-block-size:44px;inline-size:100%}
.field::placeholder{color:inherit;opacity:.7}
.field[aria-invalid=true]{outline:2px solid #b3261e;outline-offset:-1px}
.agree{grid-template-columns:24px 1fr;align-items:start;gap:8px;font-weight:400;font-size:.8125em}
.agree input{inline-size:24px;block-size:24px;accent-color:var(--accent)}
.wrong{font-size:.8125em;font-weight:560;background:#fdecea;color:#8c1d18;border-radius:6px;padding:4px 8px}
.wrong:empty{display:none}
.act{font:inherit;font-weight:620;border:0;padding:10px 18px;min-block-size:44px;cursor:pointer;text-decoration:none;display:inline-flex;align-items:center;justify-content:center;justify-self:var(--align);text-align:center;position:relative;overflow:hidden;transition:transform .16s,filter .16s}
.act[data-tone=quiet]{color:inherit;background:transparent;box-shadow:inset 0 0 0 1px currentColor}
.act[data-tone=words]{color:inherit;background:transparent;text-decoration:underline;text-underline-offset:.2em;padding-inline:4px}
form .act{justify-self:stretch}
.act[disabled]{opacity:.6;cursor:progress}
.sheen::after{content:"";position:absolute;inset:0;background:linear-gradient(110deg,transparent 35%,#fff6 50%,transparent 65%);transform:translateX(-100%)}
@keyframes nudge{25%{transform:translateX(-4px)}60%{transform:translateX(4px)}}
.close{position:absolute;border:0;cursor:pointer;place-items:center;font:inherit;font-size:.875em;z-index:1}
:is(.close,.last) i{position:relative;display:block;inline-size:14px;block-size:14px}
:is(.close,.last) i::before,:is(.close,.last) i::after{content:"";position:absolute;inset-inline:-2px;inset-block-start:6px;border-block-start:2px solid;border-radius:1px;transform:rotate(45deg)}
:is(.close,.last) i::after{transform:rotate(-45deg)}
.last{all:revert!important;position:fixed!important;inset-block-start:8px!important;inset-inline-end:8px!important;min-inline-size:44px;min-block-size:44px;z-index:2;color:#000!important;background:#fff!important;pointer-events:auto!important}
.last i{margin:auto}
@media(forced-colors:active){.box,.act,.close,.field{border:1px solid}}
@media print{:host(velarium-message){display:none!important}}
:focus-visible{outline:3px solid var(--accent);outline-offset:2px}
.box:focus-visible{outline:none}
.act:focus-visible{outline-color:var(--ink)}
.quiet{position:absolute;inline-size:1px;block-size:1px;overflow:hidden;clip-path:inset(50%);white-space:nowrap}
.layer[data-format=bar] .inner{display:flex;flex-wrap:wrap;align-items:center;justify-content:center}
.layer[data-format=bar] h2{font-size:1em}
.layer[data-format=bar] form{display:flex;flex-wrap:wrap;inline-size:auto;align-items:end}
.layer[data-format=bar] .act{padding:6px 14px;min-block-size:36px}
.layer[data-format=bar] .columns{inline-size:auto}
.layer[data-format=fullscreen] .inner{justify-items:center}
.layer[data-format=fullscreen] .inner>*{max-inline-size:620px}
`;

/** What the further blocks are drawn with; only where a message has one. */
export const FURTHER_CSS = `
select.field{appearance:auto}
textarea.field{min-block-size:96px;resize:vertical}
.ticks label{grid-template-columns:24px 1fr;align-items:center;font-weight:400;font-size:1em}
.ticks input{inline-size:24px;block-size:24px;accent-color:var(--accent)}
.code{display:flex;flex-wrap:wrap;gap:8px;align-items:stretch}
.code output{flex:1;display:grid;place-items:center;border:1.5px dashed currentColor;padding:8px 16px;font:600 1.125em ui-monospace,monospace;letter-spacing:.08em;overflow-wrap:anywhere}
.countdown{display:flex;flex-wrap:wrap;gap:4px 14px;font-variant-numeric:tabular-nums;justify-content:var(--align)}
.countdown b{font-size:1.75em;line-height:1.1;font-weight:640;display:block}
.countdown span{font-size:.8125em;text-align:center;min-inline-size:2.6em}
.layer[data-format=bar] .countdown b{display:inline;font-size:1.1em}
.layer[data-format=bar] .countdown span{min-inline-size:0}
.share{display:grid;inline-size:100%}
.share .act{justify-self:stretch;flex-wrap:wrap;align-content:center;gap:2px 8px;min-inline-size:44px;padding-inline:12px}
.share[data-shape=round] .act{border-radius:99px}
.share[data-shape=square] .act{border-radius:0}
.share .many{font-variant-numeric:tabular-nums;opacity:.75}
.share .many:empty{display:none}
.share svg{inline-size:18px;block-size:18px;stroke:currentColor;stroke-width:1.8;fill:none;stroke-linecap:round;stroke-linejoin:round;flex:none}
.film{position:relative;inline-size:100%;display:grid;overflow:hidden;background:#0a1020}
.film>*{grid-area:1/1;inline-size:100%;block-size:100%;border:0}
.film img{object-fit:cover}
.film button{border:0;cursor:pointer;background:#0005;display:grid;place-items:center;color:#fff}
.film svg{inline-size:72px;block-size:72px;fill:#fff;filter:drop-shadow(0 1px 6px #000a)}
@media (hover:hover){
.act:hover{filter:brightness(1.08)}
.lift:hover{transform:translateY(-3px)}
.swell:hover{transform:scale(1.05)}
.sheen:hover::after{transform:translateX(100%);transition:transform .6s}
.nudge:hover{animation:nudge .4s}
.close:hover{box-shadow:inset 0 0 0 99px #8883}
.film button:hover{background:#0003}
}
iframe{inline-size:100%;border:0;display:block}
.trap{position:absolute;inset-inline-start:-9999px}
`;
