import Box from '@mui/material/Box';
import { FIGURES, GREY } from '../../theme.ts';
import { bytesWords } from './bytes-words.ts';
import { Swatch } from './swatches.tsx';

interface CrateFilesProps {
  id: string;
  files: readonly { name: string; bytes: number }[];
  /** What is in the channels of each picture, by its manifest. */
  contents: Record<string, string[]>;
}

/** The files of a crate, each available by itself, with what is in its channels. */
export function CrateFiles({ id, files, contents }: CrateFilesProps) {
  return files.map((file) => (
    <Box key={file.name} sx={{ fontSize: 12 }}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
        <a
          href={`/api/crates/${id}/files/${encodeURIComponent(file.name)}`}
          style={{ color: GREY.ink, overflowWrap: 'anywhere' }}
        >
          {file.name}
        </a>
        <span style={{ font: `12px ${FIGURES}`, color: GREY.soft, whiteSpace: 'nowrap' }}>
          {bytesWords(file.bytes)}
        </span>
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1, color: GREY.soft }}>
        {file.name.endsWith('.tile.json')
          ? 'Recipe, sizes, conventions, verdicts, hashes'
          : contents[file.name]?.map((words, k, all) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a channel is known by its place
              <span key={k} style={{ whiteSpace: 'nowrap' }}>
                {all.length > 1 && <Swatch channel={k} />}
                {words}
              </span>
            ))}
      </Box>
    </Box>
  ));
}
