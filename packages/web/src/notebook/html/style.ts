/** How a notebook looks that has left: what any browser has, and nothing that is fetched. */
export const style = `
body { font: 16px/1.5 'Inter Variable', Inter, system-ui, sans-serif; color: #16282f; background: #fff; max-width: 50rem; margin: 2rem auto; padding: 0 1rem; }
h1 { font-size: 1.5rem; margin: 0.3rem 0 1rem; }
h2 { font-size: 1.15rem; }
h3 { font-size: 1rem; }
.names, .origin { color: #566a6c; font-size: 0.875rem; }
.names span + span::before { content: ' · '; }
figure { margin: 1rem 0; padding: 0.6rem 0.8rem; border: 1px solid #c9d6d2; border-radius: 8px; break-inside: avoid; }
figure svg { display: block; width: 100%; height: auto; }
figure img { display: block; max-width: 100%; height: auto; }
.marked { position: relative; width: fit-content; max-width: 100%; }
.marks, .marks svg { position: absolute; inset: 0; width: 100%; height: 100%; }
figcaption { margin-top: 0.4rem; }
.title { font-weight: 600; }
table { border-collapse: collapse; margin: 0.5rem 0; }
th, td { text-align: left; font-weight: normal; padding: 0.15rem 1rem 0.15rem 0; border-bottom: 1px solid #c9d6d2; vertical-align: top; }
thead th { color: #566a6c; }
.text td, .text th { border: 1px solid #c9d6d2; padding: 0.15rem 0.5rem; }
.value { font-family: 'IBM Plex Mono', Consolas, monospace; font-size: 0.95em; }
.gone { color: #8a4b00; }
@page { margin: 18mm 16mm; @bottom-right { content: counter(page) ' / ' counter(pages); } }
@media print { body { margin: 0; padding: 0; max-width: none; font-size: 10.5pt; } }
`;
