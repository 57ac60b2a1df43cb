/**
 * Drawings of 40 x 40 mm of kinds found in the wild, made for the tests: red is to be cut, blue is art near the middle.
 * Each says the same size in another way, or draws in another.
 */
const ART = '<rect x="18" y="18" width="3" height="2" fill="#00f"/>';
const mm = (inside: string, attributes = ''): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="40mm" height="40mm" viewBox="0 0 40 40" ${attributes}>${ART}${inside}</svg>`;
const RED = 'fill="none" stroke="#ff0000" stroke-width="0.6"';

export const SVG_KINDS: Readonly<Record<string, string>> = {
  'path with curves, relative and smooth': mm(`<path ${RED} d="m5 8c3-4 6-4 9 0s6 4 9 0q2 3 5 1t4-3l1 6h-4v3z"/>`),
  'path with arcs': mm(`<path ${RED} d="M6 10a5 3 20 0 1 9 2A4 4 0 1 0 22 8v4"/>`),
  'several sub-paths in one element': mm(`<path ${RED} d="M4 4h6v5zM12 4l6 2-3 5zM24 5h8"/>`),
  'rectangle with round corners': mm(`<rect ${RED} x="4" y="5" width="20" height="8" rx="3" ry="2"/>`),
  'circle and ellipse': mm(`<circle ${RED} cx="9" cy="9" r="5"/><ellipse ${RED} cx="27" cy="8" rx="8" ry="3"/>`),
  'line, polyline, polygon': mm(
    `<line ${RED} x1="4" y1="4" x2="15" y2="9"/><polyline ${RED} points="18,4 24,9,30 4"/><polygon ${RED} points="4 12 12 14 7,17"/>`,
  ),
  'nested groups with transforms': mm(
    `<g transform="translate(3 4)"><g transform="rotate(20) scale(1.2, .8)"><path ${RED} transform="skewX(10)" d="M3 1h12v4z"/></g></g>`,
  ),
  'transform with a matrix and odd spacing': mm(
    `<g transform=" matrix(.9,.1 -.2,1.1,6 3 ) , translate( 2 )"><path ${RED} d="M1 1h10l3 5z"/></g>`,
  ),
  'rotation about a point': mm(`<path ${RED} transform="rotate(30, 10, 8)" d="M5 6h14v3z"/>`),
  'use of a definition': mm(
    `<defs><path id="p" d="M0 0h7l2 4z"/></defs><use xlink:href="#p" x="5" y="6" ${RED}/><use href="#p" transform="rotate(40 25 9)" x="24" y="7" ${RED}/>`,
  ),
  'clones of a line that is drawn: shifted, mirrored, turned and made smaller': mm(
    `<path id="p" ${RED} d="M4 5h7l2 4z"/><use href="#p" x="12"/><use href="#p" transform="matrix(-1 0 0 1 36 8)"/><use href="#p" transform="translate(4 22) rotate(15) scale(.8)"/>`,
  ),
  'clones of a drawn group whose lines have transforms, itself moved': mm(
    `<g transform="translate(1 2) rotate(5)"><g id="g" transform="scale(.9)"><path ${RED} transform="rotate(10)" d="M4 5h7l2 4z"/><circle ${RED} cx="8" cy="13" r="2"/></g></g><g transform="scale(1.1 .9)"><use href="#g" transform="translate(16 3) rotate(-20)"/></g>`,
  ),
  'symbol with its own view': mm(
    `<symbol id="s" viewBox="0 0 10 20"><path ${RED} d="M1 1h8l-2 17z"/></symbol><use href="#s" x="4" y="4" width="20" height="9"/>`,
  ),
  'nested svg': mm(
    `<svg overflow="visible" x="4" y="3" width="20" height="10" viewBox="0 0 100 100" preserveAspectRatio="xMaxYMin meet"><path fill="none" stroke="red" stroke-width="9" d="M10 10h80L50 80z"/></svg>`,
  ),
  'colours by class': mm(
    `<style>.cut{fill:none;stroke:#F00;stroke-width:.6px}.art,.other{fill:#00f}</style><path class="cut" d="M5 5h12l4 7z"/>`,
  ),
  'colours in a CDATA style by id': mm(
    `<style type="text/css"><![CDATA[ #k { fill: none; stroke: rgb(255,0,0); stroke-width: .6px } ]]></style><path id="k" d="M5 5h12l4 7z"/>`,
  ),
  'colours in a style attribute, named': mm(`<path style="fill:none;stroke:Red;stroke-width:.6" d="M5 5h12l4 7z"/>`),
  'stroke inherited from a group': mm(`<g ${RED}><path d="M5 5h12l4 7z"/><circle cx="28" cy="9" r="4"/></g>`),
  'size in inches, other view units': `<svg xmlns="http://www.w3.org/2000/svg" width="1.5748031496in" height="1.5748031496in" viewBox="100 200 1000 1000"><rect x="550" y="650" width="75" height="50" fill="#00f"/><path fill="none" stroke="#f00" stroke-width="15" d="M200 300h300l100 150z"/></svg>`,
  'size in plain px, no view box': `<svg xmlns="http://www.w3.org/2000/svg" width="151.1811023622" height="151.1811023622"><rect x="68" y="68" width="12" height="8" fill="#00f"/><path fill="none" stroke="#f00" stroke-width="2.3" d="M15 20h60l16 30z"/></svg>`,
  'view box not in proportion': `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 80 40" preserveAspectRatio="none"><rect x="38" y="18" width="6" height="2" fill="#00f"/><path fill="none" stroke="#f00" stroke-width="1" d="M10 6h30l12 7z"/></svg>`,
  'view box placed low': `<svg xmlns="http://www.w3.org/2000/svg" width="4cm" height="4cm" viewBox="0 0 80 40" preserveAspectRatio="xMidYMax meet"><rect x="38" y="0" width="4" height="2" fill="#00f"/><path fill="none" stroke="#f00" stroke-width="1.2" d="M10 16h30l12 7z"/></svg>`,
  'entities of a drawing program': `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY ns "http://www.w3.org/2000/svg"><!ENTITY red "#ff0000">]><svg xmlns="&ns;" width="40mm" height="40mm" viewBox="0 0 40 40">${ART}<path fill="none" stroke="&red;" stroke-width=".6" d="M5 5h12l4 7z"/></svg>`,
  'layers of a drawing program': `<svg xmlns="http://www.w3.org/2000/svg" xmlns:inkscape="http://www.inkscape.org/namespaces/inkscape" width="40mm" height="40mm" viewBox="0 0 40 40"><g inkscape:groupmode="layer" inkscape:label="Picture" id="l1">${ART}</g><g inkscape:groupmode="layer" inkscape:label="Knife" id="l2" transform="translate(1,1)"><path ${RED} d="M5 5h12l4 7z"/></g></svg>`,
  'prefixed elements': `<svg:svg xmlns:svg="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><svg:rect x="18" y="18" width="3" height="2" fill="#00f"/><svg:path ${RED} d="M5 5h12l4 7z"/></svg:svg>`,
  'points and picas': `<svg xmlns="http://www.w3.org/2000/svg" width="113.385826772pt" height="9.44881889764pc" viewBox="0 0 40 40">${ART}<path ${RED} d="M5 5h12l4 7z"/></svg>`,
};
