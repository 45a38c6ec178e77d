import { type DemoSite, SITE_KEYS } from '../page.ts';
import { FELL_PAGES } from './pages.ts';

/** A style of its own that a careless tag would disturb, and that would disturb a careless message. */
const css = `
:root{font-size:18px;--night:#16223b;--straw:#f0c257;--paper:#f5f3ee}
*{box-sizing:border-box}
body{margin:0;background:var(--paper);color:#1a2030;font:1rem/1.65 Georgia,"Times New Roman",serif}
h1,h2{font-family:Georgia,serif;line-height:1.15;color:var(--night)}
h1{font-size:2.4rem;margin:.2em 0 .4em}
h2{font-variant:small-caps;letter-spacing:.03em}
a{color:#23507a}
button{text-transform:uppercase;letter-spacing:.08em;background:var(--night);color:#fff;border:0;padding:.8em 1.4em;font:600 .75rem Georgia,serif;cursor:pointer}
input{display:block;width:100%;font:inherit;padding:.5em;border:2px solid var(--night);border-radius:0;background:#fffdf5}
form.plain{display:grid;gap:1rem;max-width:26rem}
.top{display:flex;flex-wrap:wrap;gap:.4rem 2rem;align-items:baseline;justify-content:space-between;padding:1rem max(1.2rem,calc(50vw - 31rem));background:var(--night)}
.brand{color:#fff;text-decoration:none;font-size:1.15rem;letter-spacing:.04em}
nav{display:flex;flex-wrap:wrap;gap:.2rem 1.2rem}
nav a{color:#d6deeb;text-decoration:none;font-size:.85rem}
nav a[aria-current]{color:var(--straw)}
main{max-width:62rem;margin:0 auto;padding:1.4rem 1.2rem 4rem}
footer{background:#e6e1d4;padding:1.4rem max(1.2rem,calc(50vw - 31rem));font-size:.8rem}
.hero{position:relative;color:#fff;margin-bottom:1.6rem}
.hero .art{height:23rem}
.hero div{position:absolute;left:2rem;bottom:1.6rem;max-width:26rem}
.hero h1{color:#fff}
.art{display:block;width:100%;height:15rem;border-radius:2px}
.card .art{height:8rem}
.cta{display:inline-block;background:var(--straw);color:#1b1a16;padding:.6em 1.2em;text-decoration:none}
.three,.cards{display:grid;gap:1.4rem;grid-template-columns:repeat(auto-fit,minmax(15rem,1fr))}
.card{display:block;background:#fff;padding:1.1rem;color:inherit;text-decoration:none;border-top:3px solid var(--straw)}
.long{max-width:38rem;margin:0 auto}
.eyebrow{color:#66707f;font-size:.8rem;margin:0}
.standfirst{font-size:1.15rem;color:#3a4458}
.end{color:#66707f;border-top:1px solid #cfc8b6;padding-top:1rem}
@media (max-width:700px){.hero .art{height:18rem}.hero div{left:1rem;right:1rem}h1{font-size:1.8rem}}
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
