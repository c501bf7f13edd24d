// Loaded into every thread of a server (NODE_OPTIONS): keeps beside its data folder what was synced, and nothing else. What was
// written and not synced would be gone after a power cut.
import fs from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';
import { join } from 'node:path';

const mirror = process.env.WOMBAT_POWER_CUT_MIRROR;
const { openSync, fsyncSync, unlinkSync } = fs;
/** What each descriptor was opened for. */
const paths = new Map();

fs.openSync = (path, ...more) => {
  const descriptor = openSync(path, ...more);
  paths.set(descriptor, path);
  return descriptor;
};
fs.fsyncSync = (descriptor) => {
  fsyncSync(descriptor);
  const { ino } = fs.fstatSync(descriptor);
  const path = String(paths.get(descriptor));
  // Under another name first, as the power may go while it is copied: then it was not acknowledged either.
  const copying = join(mirror, `copying-${process.pid}`);
  if (fs.fstatSync(descriptor).isDirectory()) {
    const names = fs.readdirSync(path, { withFileTypes: true }).map((entry) => {
      const own = fs.statSync(join(path, entry.name), { throwIfNoEntry: false });
      return own && [entry.name, String(own.ino), entry.isDirectory()];
    });
    fs.writeFileSync(copying, JSON.stringify(names.filter(Boolean)));
    fs.renameSync(copying, join(mirror, `names-${ino}`));
  } else {
    fs.copyFileSync(path, copying);
    fs.renameSync(copying, join(mirror, `file-${ino}`));
  }
};
/** The number of a file that is gone is given to another. */
fs.unlinkSync = (path) => {
  const { ino } = fs.statSync(path);
  unlinkSync(path);
  fs.rmSync(join(mirror, `file-${ino}`), { force: true });
};
syncBuiltinESMExports();
