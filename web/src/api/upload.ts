import { answerOf, api } from './client.ts';

/** The longest name the server takes. */
const LONGEST = 120;

const baseName = (file: string): string =>
  file
    .replace(/\.[^.]*$/, '')
    .trim()
    .slice(0, LONGEST) || 'Tile';

/** Stores a picture and makes a tile of it. @throws ApiError where the picture is refused. */
export async function makeTileFrom(file: File, projectId: string) {
  const { source } = await answerOf(api.sources.$post({ form: { file } } as never));
  const { tile } = await answerOf(
    api.tiles.$post({
      json: {
        projectId,
        name: baseName(file.name),
        sourceSha256: source.sha256,
        sourceName: file.name.slice(-LONGEST),
      },
    } as never),
  );
  return tile;
}
