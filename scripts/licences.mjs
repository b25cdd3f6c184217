// Reads the licence file of every package that ships with Wunsch and fails on what is not open source.
// What package.json says of itself does not count: a version can change its licence and keep the field.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from './install.mjs';

/** Sentences that stand in the text of an OSI-approved licence (or, for fonts, the OFL). */
const TEXTS = [
  ['MIT', 'permission is hereby granted, free of charge, to any person obtaining a copy'],
  ['MIT', 'licensed under the mit license'],
  ['ISC', 'permission to use, copy, modify, and/or distribute this software for any purpose with or without fee'],
  ['ISC', 'permission to use, copy, modify, and distribute this software for any purpose with or without fee'],
  ['BSD', 'redistribution and use in source and binary forms, with or without modification, are permitted'],
  ['Apache-2.0', 'apache license version 2.0'],
  ['Apache-2.0', 'licensed under the apache license, version 2.0'],
  ['MPL-2.0', 'mozilla public license version 2.0'],
  ['OFL-1.1', 'sil open font license version 1.1'],
  ['Unlicense', 'this is free and unencumbered software released into the public domain'],
  ['PostgreSQL', 'permission to use, copy, modify, and distribute this software and its documentation for any purpose'],
  ['BlueOak-1.0.0', 'blue oak model license'],
];

/** What takes the freedom away again, wherever it stands in the file. */
const TAKES_BACK =
  /non-?commercial use only|commercial licen[cs]e|annual revenue|may not use this software|source[- ]available/;

const plain = (text) =>
  text
    .toLowerCase()
    .replace(/[#*_`"“”>=]/g, ' ')
    .replace(/-{2,}/g, ' ')
    .replace(/\s+/g, ' ');

/** The licence a text is, or null. */
export function licenceOf(text) {
  const words = plain(text);
  if (TAKES_BACK.test(words)) return null;
  return TEXTS.find(([, sentence]) => words.includes(sentence))?.[0] ?? null;
}

/** The licence of an installed package by its own files: the licence file, else the README that carries the text. */
export function readLicence(folder) {
  const files = readdirSync(folder);
  const named = files.filter((file) => /^(un)?licen[cs]e|^copying/i.test(file));
  const readmes = files.filter((file) => /^readme/i.test(file));
  // Of several (a licence for each of its parts) every one has to be free.
  const found = named.map((file) => licenceOf(readFileSync(join(folder, file), 'utf8')));
  if (found.length > 0) return found.includes(null) ? null : found[0];
  return (
    readmes.map((file) => licenceOf(readFileSync(join(folder, file), 'utf8'))).find((one) => one !== null) ?? undefined
  );
}

/**
 * Packages whose archive has no licence text; at exactly these versions README and package.json name the licence.
 * Another version is at fault until it has been looked at.
 */
const WITHOUT_FILE = new Set([
  // Parts for a platform of @napi-rs/canvas, whose own archive has the text; nothing here calls them.
  '@napi-rs/canvas-linux-x64-gnu@0.1.100', // MIT
  '@napi-rs/canvas-linux-arm64-gnu@0.1.100', // MIT
  'abstract-logging@2.0.1', // MIT
  'brotli@1.3.3', // MIT
  'dfa@1.2.0', // MIT
  'drizzle-orm@0.45.4', // Apache-2.0
  'fontkit@2.0.4', // MIT
  'react-remove-scroll-bar@2.3.8', // MIT
]);

/** @returns the packages that are not open source, with the reason */
export function notFree() {
  const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
  const faults = [];
  let read = 0;
  for (const [path, entry] of Object.entries(packages)) {
    if (!path.includes('node_modules/') || entry.dev || entry.devOptional || entry.link) continue;
    const folder = join(root, path);
    if (!existsSync(folder)) continue; // Another platform's optional part.
    const name = `${path.split('node_modules/').at(-1)}@${entry.version}`;
    read += 1;
    const licence = readLicence(folder);
    if (licence === undefined && WITHOUT_FILE.has(name)) continue;
    if (licence === undefined) faults.push(`${name} ships no licence text`);
    else if (licence === null) faults.push(`${name} has a licence that is not open source`);
  }
  return { faults, read };
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const { faults, read } = notFree();
  for (const fault of faults) process.stdout.write(`${fault}\n`);
  process.stdout.write(`${read} packages read, ${faults.length} at fault\n`);
  process.exit(faults.length === 0 && read > 0 ? 0 : 1);
}
