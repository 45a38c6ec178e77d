import { fontFace } from '../letters.ts';
import { type DemoSite, SITE_KEYS } from '../page.ts';
import { FELL_PAGES } from './pages.ts';

/** A style of its own that a careless tag would disturb, and that would disturb a careless message. */
const css = `${fontFace('fraunces')}${fontFace('figtree')}
:root{font-size:18px;--night:#111b33;--dusk:#2b3e63;--straw:#f0c257;--paper:#f6f3ec;--ink:#1b2234;--soft:#5c6577}
*{box-sizing:border-box}
body{margin:0;background:var(--paper);color:var(--ink);font:1rem/1.6 Figtree,"Segoe UI",sans-serif}
h1,h2{font-family:Fraunces,Georgia,serif;line-height:1.12;color:var(--night);font-weight:600;letter-spacing:-.012em;text-wrap:balance}
h1{font-size:2.9rem;margin:.15em 0 .4em}
h2{font-size:1.45rem;margin:1.4em 0 .4em}
a{color:#1d4d7c;text-underline-offset:.2em}
button{background:var(--night);color:#fff;border:0;border-radius:3px;padding:.85em 1.5em;font:600 .85rem Figtree,sans-serif;cursor:pointer}
button:hover{background:var(--dusk)}
input{display:block;width:100%;font:inherit;padding:.5em;border:1.5px solid var(--night);border-radius:3px;background:#fffdf8}
form.plain{display:grid;gap:1rem;max-width:26rem}
.top{display:flex;flex-wrap:wrap;gap:.4rem 2rem;align-items:baseline;justify-content:space-between;padding:1.1rem max(1.2rem,calc(50vw - 31rem));background:var(--night)}
.brand{color:#fff;text-decoration:none;font:600 1.25rem Fraunces,Georgia,serif;letter-spacing:-.01em}
nav{display:flex;flex-wrap:wrap;gap:.2rem 1.5rem}
nav a{color:#c9d3e6;text-decoration:none;font-size:.85rem;padding:.15rem 0;border-bottom:2px solid transparent}
nav a[aria-current]{color:#fff;border-color:var(--straw)}
main{max-width:64rem;margin:0 auto;padding:2rem 1.2rem 4.5rem}
footer{background:var(--night);color:#c9d3e6;padding:2rem max(1.2rem,calc(50vw - 31rem));font-size:.8rem}
footer a{color:inherit}
.hero{position:relative;color:#fff;margin:-2rem calc(50% - 50vw) 2.6rem;overflow:hidden}
.hero .art{height:27rem;border-radius:0}
.hero div{position:absolute;left:max(1.2rem,calc(50vw - 31rem));bottom:2.4rem;max-width:29rem}
.hero h1{color:#fff;font-size:3.5rem}
.hero p{font-size:1.1rem}
.art{display:block;width:100%;height:16rem;border-radius:4px}
.card .art{height:9rem;margin:-1.3rem -1.3rem 1rem;width:calc(100% + 2.6rem);border-radius:4px 4px 0 0}
.cta{display:inline-block;background:var(--straw);color:#1b1a16;padding:.75em 1.4em;border-radius:3px;text-decoration:none;font-weight:600}
.three,.cards{display:grid;gap:1.6rem;grid-template-columns:repeat(auto-fit,minmax(15rem,1fr))}
.three section{border-top:2px solid var(--straw);padding-top:.2rem}
.card{display:block;background:#fff;padding:1.3rem;color:inherit;text-decoration:none;border-radius:4px;box-shadow:0 1px 2px #111b331a,0 8px 24px #111b330d}
.card h2{margin-top:.2em}
.tour{display:grid;grid-template-columns:minmax(0,1.25fr) minmax(0,1fr);gap:2.6rem;align-items:start}
.tour .art{height:25rem}
.dates{list-style:none;padding:0;display:grid;gap:.5rem}
.dates li{background:#fff;border-left:3px solid var(--straw);padding:.55em .9em;border-radius:0 3px 3px 0}
.long{max-width:38rem;margin:0 auto}
.eyebrow{color:var(--soft);font-size:.78rem;font-weight:600;letter-spacing:.06em;margin:0}
.standfirst{font-size:1.18rem;line-height:1.5;color:#39425a}
.end{color:var(--soft);border-top:1px solid #cfc8b6;padding-top:1rem}
@media (max-width:700px){.hero .art{height:23rem}.hero h1,h1{font-size:2.1rem}.tour{grid-template-columns:minmax(0,1fr)}.tour .art{height:11rem}}
`;

/** A real basket and sign-in, kept in the browser as a small shop would, and told to the tag as a shop's developer would. */
const script = `
const tell=(...call)=>{const tag=window.velarium??={q:[]};if(tag.q)tag.q.push(call);else tag[call[0]](...call.slice(1))};
const basket=()=>JSON.parse(localStorage.getItem('fell-basket')||'[]');
const keep=(items)=>{localStorage.setItem('fell-basket',JSON.stringify(items));draw()};
const text=(name,words)=>{const e=document.createElement(name);e.textContent=words;return e};
function draw(){
  const items=basket();
  tell('basket',{items:items.length,total:items.reduce((sum,item)=>sum+item.price,0),currency:'GBP'});
  for(const place of document.querySelectorAll('[data-basket]')){
    place.replaceChildren();
    if(!items.length){place.append(text('p','There is nothing in it yet.'));continue}
    const list=document.createElement('ul');
    items.forEach((item,i)=>{const line=text('li',item.title+', £'+item.price+' ');const out=text('button','Take out');out.onclick=()=>keep(items.filter((_,j)=>j!==i));line.append(out);list.append(line)});
    place.append(list,text('p','Together £'+items.reduce((sum,item)=>sum+item.price,0)));
  }
}
document.addEventListener('click',(event)=>{
  const add=event.target.closest('[data-add]');
  if(add){keep([...basket(),{id:add.dataset.add,title:add.dataset.title,price:Number(add.dataset.price)}]);add.textContent='In the basket'}
});
const checkout=document.querySelector('[data-checkout]');
if(checkout)checkout.onsubmit=(event)=>{event.preventDefault();tell('event','bought',{total:basket().reduce((sum,item)=>sum+item.price,0)});keep([]);checkout.querySelector('[role=status]').textContent='Thank you. This is a demonstration, so nothing will be sent.'};
const members=document.querySelector('[data-members]');
function drawMember(){const name=localStorage.getItem('fell-member');tell('visitor',{signedIn:!!name,...(name&&{firstName:name.split(' ')[0],plan:'friend'})});if(!members||!name)return;const out=text('button','Sign out');out.onclick=()=>{localStorage.removeItem('fell-member');location.reload()};members.replaceChildren(text('p','Signed in as '+name+'. The next members’ night is on Thursday.'),out)}
const signIn=document.querySelector('[data-sign-in]');
if(signIn)signIn.onsubmit=(event)=>{event.preventDefault();localStorage.setItem('fell-member',new FormData(signIn).get('name'));drawMember()};
draw();drawMember();
`;

export const FELL: DemoSite = {
  name: 'Quillon Fell Observatory',
  siteKey: SITE_KEYS.fell,
  lang: 'en-GB',
  css,
  script,
  nav: [
    { path: '/night-tours', label: 'Night tours' },
    { path: '/journal', label: 'Journal' },
    { path: '/shop', label: 'Shop' },
    { path: '/membership', label: 'Membership' },
    { path: '/members', label: 'Members' },
    { path: '/about', label: 'About' },
    { path: '/contact', label: 'Contact' },
  ],
  footer:
    'Quillon Fell Observatory · an invented place, made to try Velarium on · <a href="/accessibility">Accessibility</a>',
  pages: FELL_PAGES,
};
