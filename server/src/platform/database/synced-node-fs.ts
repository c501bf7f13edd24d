import { fsyncSync } from 'node:fs';
import { NodeFS } from '@electric-sql/pglite/nodefs';

type Init = NodeFS['init'];
type Options = Awaited<ReturnType<Init>>['emscriptenOpts'];

/** What is reached of the file system inside PGlite: each kind of file has its calls, and this one lacks the one that matters. */
interface FileSystems {
  readonly FS: {
    readonly filesystems: { readonly NODEFS: { readonly stream_ops: { fsync?: (stream: { nfd: number }) => 0 } } };
  };
}

/**
 * A folder of the disk for PGlite, where PostgreSQL's wish that something be on the disk is granted. PGlite's own lacks the
 * call, so that the wish goes nowhere, and what was acknowledged is lost when the power goes.
 */
export class SyncedNodeFS extends NodeFS {
  override async init(...given: Parameters<Init>): Promise<{ emscriptenOpts: Options }> {
    const { emscriptenOpts } = await super.init(...given);
    const preRun = [emscriptenOpts.preRun ?? []].flat();
    return { emscriptenOpts: { ...emscriptenOpts, preRun: [...preRun, grantSyncs] } };
  }
}

function grantSyncs(module: unknown): void {
  const { FS } = module as FileSystems;
  FS.filesystems.NODEFS.stream_ops.fsync = ({ nfd }) => {
    fsyncSync(nfd);
    return 0;
  };
}
