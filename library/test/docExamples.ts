import ts from 'typescript';
import { expect } from 'vitest';

/** The example in the docstring of an exported function. */
export type DocExample = { name: string; code: string };

/** Exported functions of a source file with their docstrings, and what each gives as an example. */
export const examplesIn = (source: string): DocExample[] =>
  [
    ...source.matchAll(/\/\*\*((?:(?!\*\/)[\s\S])*?)\*\/\s*export (?:const|function) (\w+)/g),
  ].flatMap(([, doc = '', name = '']) => {
    const text = doc.replace(/^[ \t]*\* ?/gm, '');
    const example = /@example([\s\S]*?)(?=\n\s*(?:@|Source:)|$)/.exec(text)?.[1];
    return example === undefined ? [] : [{ name, code: example.trim() }];
  });

/** What stands behind a statement: on its line, or in the comment lines below it. */
const saidAfter = (code: string, end: number): string => {
  const rest = code.slice(end);
  const [, said = ''] = /^[ \t]*((?:\n?[ \t]*\/\/[^\n]*)+)/.exec(rest) ?? [];
  return said.replace(/^[ \t]*\/\/ ?/gm, '').trim();
};

const isPlain = (node: ts.Node): boolean =>
  ts.isIdentifier(node) && !ts.isPropertyAssignment(node.parent) && node.text !== 'undefined'
    ? false
    : node.getChildren().every(isPlain);

/** A value as it is written, words after a colon aside; undefined where what stands is said in words. */
const valueOf = (said: string): { value: unknown } | undefined => {
  const tidy = said
    .replace(/, …|…/g, '')
    .replace(/−/g, '-')
    .replace(/, nearly$/, '');
  for (const text of [tidy, tidy.split(/: (?=[a-z])/)[0]!]) {
    const file = ts.createSourceFile('said.ts', `(${text})`, ts.ScriptTarget.Latest, true);
    const { parseDiagnostics } = file as unknown as { parseDiagnostics: unknown[] };
    if (text.trim() === '' || parseDiagnostics.length > 0 || !isPlain(file)) continue;

    return { value: new Function(`return (${text})`)() as unknown };
  }
  return undefined;
};

const decimals = (value: number): number => (String(value).split('.')[1] ?? '').length;

/** Every number, word and null that is said stands in what came; numbers to the digits that are written. */
const holds = (came: unknown, said: unknown, where: string): void => {
  if (typeof said === 'number' && !Number.isInteger(said)) {
    expect(came, where).toBeCloseTo(said, decimals(said) - 0.5);
  } else if (typeof said === 'object' && said !== null) {
    for (const [key, value] of Object.entries(said))
      holds((came as Record<string, unknown> | null)?.[key], value, `${where}.${key}`);
  } else expect(came, where).toBe(said);
};

/**
 * Runs an example as it stands, with all that the package exports at hand, and holds it to the values that it
 * writes behind its lines.
 *
 * @returns how many values were held against what came
 */
export const runExample = ({ code, name }: DocExample, scope: Record<string, unknown>): number => {
  const file = ts.createSourceFile(`${name}.ts`, code, ts.ScriptTarget.Latest, true);
  const said: { value: unknown }[] = [];
  const lines = file.statements.map((statement) => {
    const value = ts.isExpressionStatement(statement)
      ? valueOf(saidAfter(code, statement.end))
      : undefined;
    const text = statement.getText().replace(/;$/, '');
    if (!value) return `${text};`;
    said.push(value);
    return `came.push(${text});`;
  });
  const script = ts.transpile(lines.join('\n'), { target: ts.ScriptTarget.ESNext });
  const came: unknown[] = [];
  const names = Object.keys(scope).filter((known) => /^[A-Za-z_$][\w$]*$/.test(known));

  new Function('came', ...names, `{${script}}`)(came, ...names.map((known) => scope[known]));
  said.forEach(({ value }, i) => holds(came[i], value, `${name}, value ${i + 1}`));
  return said.length;
};
