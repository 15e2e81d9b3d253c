import { readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { parse } from '@vue/compiler-sfc';
import ts from 'typescript';
import { filesIn, root } from './files.mjs';

/*
 * Words that a page would show and no catalogue can reach: text and labels written into a template as they are, and
 * sentences in the interface's and the core's code that are not said, or are said too early. Sources, formulas and names are the same everywhere.
 */
const ELEMENT = 1;
const TEXT = 2;
const ATTRIBUTE = 6;
const labels = /^(label|title|placeholder|aria-label|alt|hint|subtitle|act|summary|heading|legend|question)$/;
/** A name, units, or a key of the keyboard: the same in every language. */
const same =
  /^(Kauri|https:.*|Ctrl [A-Z]|[\d\s·×%°–—…;:,.()/+−≈|●○◐◑✓□←→]*|\P{Ll}{0,3}|°C|pH|(\d+ )?(mm|cm|m|m²|km|g|kg|mL|h|min|kPa))$/u;
/** A sentence: a capital, some words, a full stop. */
const sentence = /^\p{Lu}[\p{L}’,;: \d-]+ [\p{L}’,;: \d-]+[.!?]$/u;
/** One with figures or names put in: three words running, and a full stop. */
const joined = /\p{Ll}{2,} \p{Ll}+ \p{Ll}+.*[.!?]$/u;
/** Words between figures, however few: “4 trees in Bed 2”. */
const between = /(^|[\s(])\p{Ll}{2,} 0|0 (?!mm|cm|min|kg|mL)\p{Ll}{2,}( |$)/u;
/** What a record calls the words of a thing, where it does not translate them when they are read. */
const shown = /^(words|title|headline|detail)$/;
/** Files whose English is for programmers, or cites its sources. */
const exempt = /(contract\/(openapi|\w+\/routes)\.ts|calibrate\/|demo\/)/;

/**
 * @param {{ has: (english: string) => boolean }} reached what the catalogues know of
 * @returns {string[]} each as "file: words"
 */
export function proseOutside(reached) {
  const found = [];
  for (const room of ['web/src', 'core/src'])
    for (const path of filesIn(join(root, room))) {
      const where = relative(root, path);
      if (exempt.test(where)) continue;
      const source = readFileSync(path, 'utf8');
      const push = (text) => found.push(`${where}: ${text}`);
      const add = (text) => reached.has(text) || push(text);
      if (!path.endsWith('.vue')) sentencesIn(source, add, false, room, push);
      else {
        const { descriptor } = parse(source);
        if (descriptor.scriptSetup) sentencesIn(descriptor.scriptSetup.content, add, true, room, push);
        if (descriptor.template) textIn(descriptor.template.ast, add);
      }
    }
  return found;
}

function textIn(node, add) {
  if (node.type === TEXT) {
    const text = node.content.trim();
    if (/\p{L}{2}/u.test(text) && !same.test(text)) add(text);
  }
  if (node.type === ELEMENT)
    for (const prop of node.props)
      if (
        prop.type === ATTRIBUTE &&
        labels.test(prop.name) &&
        /\p{L}{2}/u.test(prop.value?.content ?? '') &&
        !same.test(prop.value.content)
      )
        add(`${prop.name}="${prop.value.content}"`);
  for (const child of node.children ?? []) textIn(child, add);
}

/**
 * @param {boolean} running whether the code runs only once a language is known, as a component’s does
 * @param {string} room whose code it is
 * @param {(words: string) => void} push says that words stand outside, also where a catalogue knows them
 */
function sentencesIn(source, add, running, room, push) {
  const file = ts.createSourceFile('x.ts', source, ts.ScriptTarget.Latest, true);
  const visit = (node, inFunction) => {
    const inside = inFunction || ts.isFunctionLike(node);
    if (ts.isTaggedTemplateExpression(node)) {
      if (!inside && node.tag.getText(file) === 'say')
        add(`said when the file is loaded, before a language is known: ${node.getText(file)}`);
      if (ts.isTemplateExpression(node.template))
        for (const span of node.template.templateSpans) visit(span.expression, inside);
      return;
    }
    // What a programmer reads, where a sentence comes from, and words kept in records, which are said when they are read.
    // An error of the interface is shown as it is.
    if (
      room === 'core/src' &&
      ts.isNewExpression(node) &&
      /^(Error|RangeError|TypeError)$/.test(node.expression.getText(file))
    )
      return;
    if (ts.isPropertyAssignment(node) && /^(source|formula)$/.test(node.name.getText(file))) return;
    if (ts.isCallExpression(node) && /^(inWords|word)$/.test(node.expression.getText(file))) return;
    if (room === 'web/src' && ts.isPropertyAssignment(node)) {
      if (node.name.getText(file) === 'key') return;
      const { initializer } = node;
      if (
        shown.test(node.name.getText(file)) &&
        ts.isStringLiteralLike(initializer) &&
        /\p{L}{4}/u.test(initializer.text)
      )
        push(initializer.text);
    }
    if (ts.isStringLiteralLike(node) && sentence.test(node.text)) add(node.text);
    if (ts.isTemplateExpression(node)) {
      const text = node.head.text + node.templateSpans.map((span) => `0${span.literal.text}`).join('');
      if (joined.test(text) || (room === 'web/src' && between.test(text))) add(text);
    }
    ts.forEachChild(node, (child) => visit(child, inside));
  };
  visit(file, running);
}
