declare module 'webvtt-parser' {
  export class WebVTTParser {
    parse(
      input: string,
      mode: 'subtitles',
    ): { cues: { startTime: number; endTime: number; text: string }[]; errors: { message: string }[] };
  }
}
