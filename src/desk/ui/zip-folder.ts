import { zip, type AsyncZippable } from 'fflate';

/** A folder that was chosen, as a ZIP; its own name is left out of the paths, and so is what systems hide in it. */
export async function zipFolder(files: File[]): Promise<File> {
  const parts: AsyncZippable = {};
  for (const file of files) {
    const path = file.webkitRelativePath.split('/').slice(1).join('/') || file.name;
    if (path.split('/').some((part) => part.startsWith('.') || part === '__MACOSX')) continue;
    parts[path] = [new Uint8Array(await file.arrayBuffer()), { level: 0 }];
  }
  const bytes = await new Promise<Uint8Array>((resolve, reject) =>
    zip(parts, (error, done) => (error ? reject(error) : resolve(done))),
  );
  return new File([bytes as Uint8Array<ArrayBuffer>], 'folder.zip', { type: 'application/zip' });
}
