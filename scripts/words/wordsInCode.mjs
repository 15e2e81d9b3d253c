import { readFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { parse } from '@vue/compiler-sfc';
import ts from 'typescript';
import { filesIn, root } from './files.mjs';

/*
 * Every word of Kauri as its code holds it: what `say`, `told`, `word`, `inWords` and `several` are given, the names that
 * the contract's limits carry, and what the species' tables say. English is the key of every catalogue.
 */
const rooms = ['core/src', 'web/src', 'server/src'];
/** Interpreted where they are shown: values of closed sets that are words themselves. */
const shownSets =
  /^(holdCauses|lineStates|routeStarts|stageEnds|arrivalKinds|arrivalFaults|storeSigns|readingFlags|weatherEventKinds)$/;

/** The TypeScript of a file: all of it, or a component’s scripts and the expressions of its template. */
function* scriptsOf(path) {
  const source = readFileSync(path, 'utf8');
  if (!path.endsWith('.vue')) return yield source;
  const { descriptor } = parse(source);
  if (descriptor.scriptSetup) yield descriptor.scriptSetup.content;
  if (descriptor.script) yield descriptor.script.content;
  if (descriptor.template) yield* expressionsOf(descriptor.template.ast);
}
const INTERPOLATION = 5;
const DIRECTIVE = 7;
function* expressionsOf(node) {
  if (node.type === INTERPOLATION) yield `(${node.content.loc.source})`;
  for (const prop of node.props ?? [])
    if (prop.type === DIRECTIVE && prop.exp && !['for', 'slot'].includes(prop.name))
      yield prop.name === 'on' ? prop.exp.loc.source : `(${prop.exp.loc.source})`;
  for (const child of node.children ?? []) yield* expressionsOf(child);
}

/** A literal's text, its values numbered. */
const textOf = (node) =>
  ts.isStringLiteralLike(node)
    ? node.text
    : ts.isTemplateExpression(node)
      ? node.templateSpans.reduce((text, span, at) => `${text}{${at}}${span.literal.text}`, node.head.text)
      : null;

/** An expression without its types. */
const unwrapped = (node) => {
  let inner = node;
  while (ts.isAsExpression(inner) || ts.isSatisfiesExpression(inner) || ts.isParenthesizedExpression(inner))
    inner = inner.expression;
  return inner;
};

/**
 * @returns {Map<string, { where: string, noun: boolean, many?: string }>} English → a file it is said in, and whether it is
 *   a noun that is counted
 */
export function wordsInCode() {
  const found = new Map();
  for (const room of rooms)
    for (const path of filesIn(join(root, room))) {
      const where = relative(root, path).split(sep).join('/');
      const put = (text, noun = false, many) => {
        const before = found.get(text);
        if (text && /\p{L}/u.test(text))
          found.set(text, {
            where: before?.where ?? where,
            noun: noun || (before?.noun ?? false),
            many: many ?? before?.many,
          });
      };
      for (const script of scriptsOf(path)) gather(script, where, put);
    }
  return found;
}

function gather(script, where, put) {
  const file = ts.createSourceFile('x.ts', script, ts.ScriptTarget.Latest, true);
  const inContract = where.startsWith('core/src/contract/');
  const inSpecies = /^core\/src\/species\/(speciesLibrary|startingSpecies)\.ts$/.test(where);
  const visit = (node) => {
    if (ts.isTaggedTemplateExpression(node) && /^(say|told)$/.test(node.tag.getText(file)))
      put(textOf(node.template));
    if (ts.isCallExpression(node)) called(node);
    if (ts.isVariableDeclaration(node) && shownSets.test(node.name.getText(file)))
      for (const element of unwrapped(node.initializer).elements) put(element.text);
    if (inSpecies && ts.isStringLiteral(node)) ofSpecies(node);
    ts.forEachChild(node, visit);
  };
  const isContainer = where === 'core/src/container/startingContainers.ts';
  const called = (node) => {
    const name = node.expression.getText(file);
    const [first, second, third] = node.arguments;
    if (name === 'several' || name === 'nounFor') {
      const branches = ts.isConditionalExpression(second) ? [second.whenTrue, second.whenFalse] : [second];
      for (const one of branches)
        if (ts.isStringLiteralLike(one))
          put(one.text, true, third && ts.isStringLiteralLike(third) ? third.text : `${one.text}s`);
    }
    if (name === 'word' && ts.isStringLiteralLike(first)) put(first.text);
    if (name === 'inWords') ofRecord(node);
    if (isContainer && name === 'container') put(first.text);
    const named =
      (inContract && ts.isIdentifier(node.expression)) ||
      /^of(Spread|Number|Start|StartSpread|Budburst)$/.test(name);
    if (named && first && ts.isStringLiteralLike(first) && /[A-Z ]/.test(first.text)) put(first.text);
  };
  const ofRecord = ({ arguments: [of, ...names] }) => {
    const wanted = new Set(names.map(({ text }) => text));
    const record = unwrapped(of);
    const entries = ts.isArrayLiteralExpression(record)
      ? record.elements
      : record.properties.filter(ts.isPropertyAssignment).map(({ initializer }) => initializer);
    for (const entry of entries.map(unwrapped)) {
      if (wanted.size === 0 && ts.isStringLiteralLike(entry)) put(entry.text);
      if (!ts.isObjectLiteralExpression(entry)) continue;
      for (const { name, initializer } of entry.properties.filter(ts.isPropertyAssignment))
        if (wanted.has(name.getText(file)) && ts.isStringLiteralLike(initializer)) put(initializer.text);
    }
  };
  /** Common names, leaves and cautions; not codes, Latin names, protocols or habits. */
  const ofSpecies = (node) => {
    const { parent } = node;
    const isCommon = ts.isCallExpression(parent) && parent.arguments[1] === node;
    const isLeaf = ts.isPropertyAssignment(parent) && parent.name.getText(file) === 'leaf';
    const isCaution =
      (ts.isVariableDeclaration(parent) || ts.isArrayLiteralExpression(parent)) && /\.$/.test(node.text);
    if (isCommon || isLeaf || isCaution) put(node.text);
  };
  visit(file);
}
