/** The panel's sheet: linen paper, ink and hairlines, as the studio has them. */
export const PANEL_STYLES = `
:host{all:initial!important;position:fixed!important;inset-block-end:12px!important;inset-inline-start:12px!important;z-index:2147483600!important;contain:layout style!important}
:host([data-corner$=end]){inset-inline:auto 12px!important}
:host([data-corner^=top]){inset-block:12px auto!important}
summary{cursor:pointer;padding-block:4px}
summary:focus-visible{outline:2px solid #b4541a;outline-offset:2px}
*{box-sizing:border-box;margin:0;padding:0;font:inherit}
section{inline-size:min(340px,calc(100vw - 24px));max-block-size:min(440px,calc(100vh - 24px));overflow:auto;display:grid;gap:8px;padding:12px 14px;background:#faf6ec;color:#1f2a3d;border:1px solid #1f2a3d;border-radius:6px;box-shadow:0 8px 30px #0004;font:13px/1.4 ui-sans-serif,system-ui,sans-serif;font-variant-numeric:tabular-nums}
section[data-folded]>:not(header){display:none}
header{display:flex;align-items:center;justify-content:space-between;gap:8px}
h2{font-weight:650;font-size:14px}
p{color:#4a5568}
ul{list-style:none;display:grid}
li[data-verdict^='blocked:page.']{order:1}
li{display:grid;grid-template-columns:1fr auto;gap:2px 10px;padding:8px 0;border-block-start:1px solid #d8cfba}
.name{font-weight:600;overflow-wrap:anywhere}
.mark{text-align:end;white-space:nowrap;color:#4a5568}
[data-verdict=shown] .mark,[data-verdict=ready] .mark{color:#1d6b45;font-weight:600}
[data-verdict^=waiting] .mark{color:#8a4b10;font-weight:600}
.why{grid-column:1;color:#4a5568}
li button{align-self:end}
button{cursor:pointer;background:none;color:inherit;border:1px solid #8a8371;border-radius:4px;padding:3px 8px;min-block-size:26px}
button:hover{background:#f0e7d2}
button:focus-visible{outline:2px solid #b4541a;outline-offset:2px}
label{display:grid;grid-template-columns:1fr 10rem;align-items:center;gap:8px}
form{display:grid;gap:5px;padding-block:4px 8px}
input,select{border:1px solid #8a8371;border-radius:4px;background:#fff;color:inherit;padding:2px 6px;min-block-size:26px;inline-size:100%}
input:focus-visible,select:focus-visible{outline:2px solid #b4541a;outline-offset:1px}
.pretended{border-inline-start:3px solid #b4541a;padding-inline-start:8px;color:#1f2a3d}
footer{display:flex;gap:8px;flex-wrap:wrap;border-block-start:1px solid #d8cfba;padding-block-start:10px}`;
