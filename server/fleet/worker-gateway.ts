import { randomBytes } from 'node:crypto';
import { createWriteStream, existsSync } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import type http from 'node:http';
import type { AddressInfo } from 'node:net';
import { pipeline } from 'node:stream/promises';
import express, { type Request, type Response } from 'express';
import { createListener, WORKERS } from '../listener';
import type { RenderOrder } from '../render/order';
import { passFiles, type SegmentTask } from '../render/segment';
import { VERSION } from '../render/version';
import { createId } from '../store/create-id';
import { type SegmentJob, SEGMENT_JOB_FILES, type SegmentJobFile, reportSchema } from './protocol';
import { Signer } from './signer';

/** A segment that somebody waits for. */
interface AwaitedSegment {
  order: RenderOrder;
  task: SegmentTask;
  onFrame: (done: number) => void;
}

/** Where the files of a segment lie on the server. */
const toErrandFiles = ({ file }: SegmentTask): Record<SegmentJobFile, string> => ({
  segment: file,
  ...passFiles(file),
});

/** Files that a pass needs of the one before it, and that it leaves. */
const listNeededFiles = ({ pass }: SegmentTask): SegmentJobFile[] => (pass === 2 ? ['log', 'tree'] : []);
const listLeftFiles = ({ pass }: SegmentTask): SegmentJobFile[] =>
  pass === 1 ? ['segment', 'log', 'tree'] : ['segment'];

/** Gives workers what they need and takes what they made, by HTTP: the only thing besides Redis that they share with us. */
export class WorkerGateway {
  private readonly wanted = new Map<string, AwaitedSegment>();
  private readonly signer = new Signer();
  private readonly server: http.Server;

  private constructor(private origin: string) {
    const app = express();
    app.disable('x-powered-by');
    app.get('/work/:ticket', (request, response) => this.tell(request, response));
    app.post('/work/:ticket', express.json(), (request, response) => this.hear(request, response));
    app.get('/work/:ticket/masters/:fingerprint', (request, response) => {
      const { fingerprint } = request.params;
      this.send(request, response, (wanted) => wanted.order.masters[fingerprint]);
    });
    app.get('/work/:ticket/kept/:name', (request, response) => {
      const { name } = request.params;
      this.send(
        request,
        response,
        ({ task }) =>
          listNeededFiles(task).includes(name as SegmentJobFile) &&
          toErrandFiles(task)[name as SegmentJobFile],
      );
    });
    app.put('/work/:ticket/made/:name', (request, response) => this.take(request, response));
    this.server = createListener(app, WORKERS);
  }

  /** @param address where workers find it; it listens on that host and port, 0 for any that is free. */
  static async open(address: string): Promise<WorkerGateway> {
    const { hostname, port, protocol } = new URL(address);
    const desk = new WorkerGateway(address);
    await new Promise<void>((resolve, reject) => {
      desk.server.once('error', reject);
      desk.server.listen(Number(port || 80), hostname, resolve);
    });
    const bound = (desk.server.address() as AddressInfo).port;
    desk.origin = `${protocol}//${hostname}:${bound}`;
    return desk;
  }

  /** Writes an errand down. @returns where a worker learns of it. */
  issue(wanted: AwaitedSegment): string {
    const ticket = createId();
    this.wanted.set(ticket, wanted);
    return this.address(ticket);
  }

  /** Nobody waits for it any longer: who works on it is told when it asks next. */
  revoke(address: string): void {
    this.wanted.delete(address.split('/').pop() ?? '');
  }

  close(): void {
    this.server.closeAllConnections();
    this.server.close();
  }

  private address(ticket: string, ...parts: string[]): string {
    return [this.origin, 'work', ticket, ...parts].join('/');
  }

  private find(request: Request, response: Response): AwaitedSegment | null {
    const wanted = this.wanted.get(String(request.params.ticket));
    if (!wanted) response.status(404).json({ error: 'nobody waits for this any longer' });
    return wanted ?? null;
  }

  private findSigned(request: Request, response: Response): AwaitedSegment | null {
    if (this.signer.isGood(request.method, request.path, request.query)) return this.find(request, response);
    response.status(403).json({ error: 'this address was not given for that, or has run out' });
    return null;
  }

  private tell(request: Request, response: Response): void {
    const wanted = this.find(request, response);
    if (!wanted) return;
    const ticket = String(request.params.ticket);
    const { order, task } = wanted;
    const { picture } = order.making;
    if (!picture) throw new RangeError('sound alone has no segments');
    const there = toErrandFiles(task);
    const signAddresses = (method: 'GET' | 'PUT', folder: string, names: readonly string[]) =>
      Object.fromEntries(
        names.map((name) => [name, this.signer.sign(method, this.address(ticket, folder, name))]),
      );
    const errand: SegmentJob = {
      ...{ version: VERSION, plan: order.plan, making: { ...order.making, picture, sound: null }, task },
      masters: signAddresses('GET', 'masters', Object.keys(order.masters)),
      kept: signAddresses(
        'GET',
        'kept',
        listNeededFiles(task).filter((name) => existsSync(there[name])),
      ),
      made: signAddresses('PUT', 'made', listLeftFiles(task)),
    };
    response.json(errand);
  }

  private hear(request: Request, response: Response): void {
    const wanted = this.find(request, response);
    if (!wanted) return;
    const report = reportSchema.safeParse(request.body);
    if (report.success) wanted.onFrame(report.data.frames);
    response.status(report.success ? 204 : 422).end();
  }

  private send(
    request: Request,
    response: Response,
    fileOf: (wanted: AwaitedSegment) => string | false | undefined,
  ): void {
    const wanted = this.findSigned(request, response);
    if (!wanted) return;
    const file = fileOf(wanted);
    if (!file) {
      response.status(404).json({ error: 'there is no such file' });
      return;
    }
    response.type('application/octet-stream').sendFile(file, (error?: NodeJS.ErrnoException) => {
      if (error && !response.headersSent) response.status(500).json({ error: 'the file cannot be read' });
    });
  }

  /** A file has its name only once it is whole; of two workers that bring the same the later wins. */
  private async take(request: Request, response: Response): Promise<void> {
    const wanted = this.findSigned(request, response);
    if (!wanted) return;
    const name = SEGMENT_JOB_FILES.find((known) => known === request.params.name);
    if (!name || !listLeftFiles(wanted.task).includes(name)) {
      response.status(404).json({ error: 'no such file is wanted' });
      return;
    }
    const part = `${toErrandFiles(wanted.task)[name]}.${randomBytes(6).toString('hex')}.part`;
    try {
      await pipeline(request, createWriteStream(part));
      // Somebody else may have it made meanwhile.
      if (!this.find(request, response)) return await rm(part, { force: true });
      await rename(part, toErrandFiles(wanted.task)[name]);
      response.status(204).end();
    } catch {
      await rm(part, { force: true });
      if (!response.headersSent) response.status(500).json({ error: 'the file could not be kept' });
    }
  }
}
