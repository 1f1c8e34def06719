import { readFileSync } from 'node:fs';
import path from 'node:path';
import Ajv from 'ajv/dist/2020';
import { testJob } from '../job/test-job';
import { SHIPPED_SHEETS } from '../outlets/shipped';
import { renderApi } from './render-api';

const published = path.resolve(__dirname, '../../../docs/render-api.json');

describe('the render server’s interface', () => {
  it('is published as it is', () => {
    expect(JSON.parse(readFileSync(published, 'utf8'))).toEqual(JSON.parse(JSON.stringify(renderApi())));
  });

  it('has schemas that a validator from elsewhere reads, and that take what is sent', () => {
    const { RenderRequest, RenderState } = renderApi().components.schemas;
    const ajv = new Ajv({ strict: false, validateFormats: false });
    const { exports: _exports, posts: _posts, ...job } = testJob();
    const request = { job, clip: 'clip-1', canvas: 'canvas-1', sheets: SHIPPED_SHEETS, mark: 'x' };
    const takes = ajv.compile(RenderRequest);
    expect([takes(request), takes.errors]).toEqual([true, null]);
    expect(takes({ ...request, job: {} })).toBe(false);
    expect(ajv.compile(RenderState)({ state: 'running', done: 1, total: 2 })).toBe(true);
    expect(ajv.compile(RenderState)({ state: 'odd' })).toBe(false);
  });
});
