/** How the reference looks: a document to read, its contents beside it; on paper without them. */
export const STYLE = `
:root{color-scheme:light dark;--ground:#f3f5f6;--sheet:#fff;--ink:#14212b;--quiet:#52626e;--rule:#d3dbe1;--accent:#0a5a6a;--tint:#e2eef0;--mark:#7a5600;--mark-tint:#fdf1d8}
@media (prefers-color-scheme:dark){:root{--ground:#111a20;--sheet:#172229;--ink:#e4ebef;--quiet:#9aabb7;--rule:#2c3b45;--accent:#63bccb;--tint:#1b363e;--mark:#f0c869;--mark-tint:#3a2f16}}
*{box-sizing:border-box}
[hidden]{display:none!important}
body{margin:0;display:grid;grid-template-columns:19rem minmax(0,1fr);background:var(--sheet);color:var(--ink);font:15px/1.55 "IBM Plex Sans",system-ui,sans-serif}
code,pre,.mono{font-family:"IBM Plex Mono",ui-monospace,monospace;font-size:.92em}
a{color:var(--accent);text-underline-offset:.2em}
:focus-visible{outline:2px solid var(--accent);outline-offset:2px}
nav{position:sticky;top:0;height:100vh;overflow-y:auto;background:var(--ground);border-right:1px solid var(--rule);padding:1rem;font-size:13px}
nav label{display:block;font-weight:600;margin-bottom:.25rem}
nav input{width:100%;padding:.4rem .5rem;border:1px solid var(--quiet);border-radius:3px;background:var(--sheet);color:var(--ink);font:inherit}
nav output{display:block;min-height:1.4em;color:var(--quiet);margin:.3rem 0 .6rem}
nav ul{list-style:none;margin:0 0 .8rem;padding:0}
nav div[data-group]{content-visibility:auto;contain-intrinsic-size:auto 12rem}
nav .group{font-weight:600;margin:.6rem 0 .15rem}
nav li a{display:grid;grid-template-columns:3.6rem minmax(0,1fr);gap:.3rem;padding:.12rem .2rem;color:inherit;text-decoration:none;border-left:2px solid transparent}
nav li a:hover{background:var(--tint)}
nav li a.plain{display:block}
nav .method{color:var(--quiet);font-size:11px;line-height:1.9}
main{padding:2rem 2.5rem 6rem;max-width:66rem;min-width:0}
h1{font-size:1.9rem;line-height:1.2;margin:0 0 .3rem}
h2{font-size:1.35rem;margin:3rem 0 .6rem;padding-bottom:.3rem;border-bottom:2px solid var(--ink)}
h3{font-size:1.08rem;margin:0 0 .2rem}
h4{font-size:.92rem;margin:1.1rem 0 .3rem}
p{margin:.4rem 0;max-width:46rem}
.quiet{color:var(--quiet)}
article{margin:2.2rem 0;content-visibility:auto;contain-intrinsic-size:auto 40rem;scroll-margin-top:1rem}
article+article{border-top:1px solid var(--rule);padding-top:1.6rem}
.call{margin:.1rem 0 .3rem;overflow-wrap:anywhere}
.call b{display:inline-block;min-width:4.2rem}
.facts{color:var(--quiet);font-size:.88rem;margin:0 0 .6rem}
.ends{background:var(--mark-tint);color:var(--mark);padding:.4rem .7rem;border-left:3px solid var(--mark)}
table{border-collapse:collapse;width:100%;font-size:.9rem;margin:.3rem 0 .8rem}
th{text-align:left;font-weight:600;color:var(--quiet);font-size:.8rem;padding:.2rem .8rem .2rem 0;border-bottom:1px solid var(--rule)}
td{padding:.28rem .8rem .28rem 0;border-bottom:1px solid var(--rule);vertical-align:top;overflow-wrap:break-word}
td code{overflow-wrap:anywhere}
td:first-child{white-space:nowrap}
td p{margin:0}
.answers{table-layout:fixed}
.answers th:first-child{width:9.5rem}
.answers th:last-child{width:19rem}
.answers td:first-child{white-space:normal}
pre{background:var(--ground);border-left:3px solid var(--rule);padding:.7rem .9rem;margin:.4rem 0 1rem;overflow-x:auto;line-height:1.45;white-space:pre-wrap;overflow-wrap:anywhere}
blockquote{margin:.5rem 0;padding-left:1rem;border-left:3px solid var(--rule)}
@media (max-width:56rem){body{display:block}nav{position:static;height:auto;max-height:45vh}main{padding:1.2rem}td:first-child{white-space:normal}}
@media print{:root{--ground:#fff;--sheet:#fff;--ink:#000;--quiet:#333;--rule:#999;--accent:#000;--tint:#fff;--mark:#000;--mark-tint:#fff}body{display:block;font-size:10pt}nav{display:none}main{max-width:none;padding:0}article{content-visibility:visible}h2,h3,h4,.call{break-after:avoid}tr,pre{break-inside:avoid}a{text-decoration:none}}
`
  .trim()
  .replaceAll('\n', '');

/** Finds operations and shapes by words of their paths, names and summaries. Without it everything is shown. */
export const SCRIPT = `
(function(){
var field=document.getElementById('find'),count=document.getElementById('found');
var items=Array.prototype.slice.call(document.querySelectorAll('nav li[data-find]'));
var groups=Array.prototype.slice.call(document.querySelectorAll('[data-group]'));
function narrow(){
var words=field.value.toLowerCase().split(/\\s+/).filter(Boolean),found=0;
items.forEach(function(item){
var fits=words.every(function(word){return item.dataset.find.indexOf(word)>=0});
item.hidden=!fits;if(fits)found++;
var about=document.getElementById(item.dataset.of);if(about)about.hidden=!fits;
});
groups.forEach(function(group){group.hidden=!group.querySelector(group.dataset.group)});
count.textContent=words.length===0?'':found===1?'1 found':found+' found';
}
field.parentNode.hidden=false;
field.addEventListener('input',narrow);
document.addEventListener('keydown',function(event){
if(event.key==='/'&&document.activeElement!==field){event.preventDefault();field.focus();}
if(event.key==='Escape'&&document.activeElement===field){field.value='';narrow();}
});
}());
`.trim();
