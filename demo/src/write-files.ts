import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { makeDistrict } from './make-district.js';

/** Writes demo/files, demo/planted-faults.json and demo/decoys.json anew; they are kept in the repository and a test compares them. */
const folder = fileURLToPath(new URL('../', import.meta.url));
const { files, plantedFaults, decoys } = makeDistrict();
mkdirSync(`${folder}files`, { recursive: true });
for (const { name, bytes } of files) writeFileSync(`${folder}files/${name}`, bytes);
writeFileSync(`${folder}decoys.json`, `${JSON.stringify(decoys, null, 2)}\n`);
writeFileSync(`${folder}planted-faults.json`, `${JSON.stringify(plantedFaults, null, 2)}\n`);
