import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';

/** Everything a stand-in knows, kept in one JSON file so that it survives a restart. */
export class JsonState<Data> {
  readonly data: Data;
  private timer: NodeJS.Timeout | null = null;
  private isClosed = false;

  constructor(
    private readonly file: string,
    begin: () => Data,
  ) {
    this.data = existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Data) : begin();
    this.write();
  }

  /** Soon: many changes at once are written once. */
  save(): void {
    if (this.isClosed) return;
    this.timer ??= setTimeout(() => this.write(), 100);
    this.timer.unref();
  }

  write(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    writeFileSync(`${this.file}.new`, JSON.stringify(this.data));
    renameSync(`${this.file}.new`, this.file);
  }

  /** Writes what is left; from now on nothing more is. */
  close(): void {
    this.write();
    this.isClosed = true;
  }

  /** Writes what is left when the process is asked to stop. */
  writeAtEnd(): void {
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.on(signal, () => {
        this.write();
        process.exit(0);
      });
  }
}
