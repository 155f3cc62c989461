import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import GlobalStyles from '@mui/material/GlobalStyles';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import {
  albedoBand,
  type Check,
  checksOf,
  type LuminanceBins,
  lineOf,
  parseRecipe,
  type Recipe,
  type Verdict,
} from '@zesty-tile/core';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { answerOf, api } from '../api/client.ts';
import { VIEW_WORDS, type ViewName } from '../engine/views.ts';
import { LuminanceFigure } from '../stations/gauge/luminance-graph.tsx';
import { FIGURES, GREY } from '../theme.ts';
import { SIGN, STATE_COLOUR } from '../verdict.tsx';
import { useProjects } from '../yard/queries.ts';
import { savePicture } from './save-picture.ts';

interface SheetLook {
  revision: number;
  thumbnail: string;
  ball: string;
  maps: Record<string, string>;
  verdicts: Record<string, Verdict>;
  bins: LuminanceBins;
}

const picture = (sha256: string) => `/api/thumbnails/${sha256}`;

/** A sheet is white, and everything on it ink, whatever the theme. */
const PAPER = { bgcolor: '#fff', color: '#1d1d1d' };

const PRINT = {
  '@page': { size: 'A4 portrait', margin: '10mm' },
  '@media print': {
    body: { background: '#fff' },
    '.no-print': { display: 'none !important' },
    '.sheet': {
      boxShadow: 'none !important',
      margin: '0 !important',
      padding: '0 !important',
      width: 'auto !important',
    },
    '#root': { height: 'auto', overflow: 'visible' },
  },
};

/** How the files are meant, in pairs of a name and words. */
function factsOf(
  { square, relief, source, crate }: Recipe['stations'],
  sourceName: string,
): [string, string][] {
  const share = relief.depthMm / 1000 / square.edgeMetres;
  return [
    ['Size', `${square.size} px, ${square.shape}`],
    ['Edge', `${square.edgeMetres} m, ${Math.round(square.size / square.edgeMetres)} px per metre`],
    ['Depth', `${relief.depthMm} mm, ${share.toFixed(5)} of the edge`],
    ['Normal', `green ${relief.normalY === 'up' ? 'up (+Y)' : 'down (−Y)'}, ${crate.normalBits} bit`],
    ['Roughness', 'perceptual; α = roughness²'],
    ['Colour', 'sRGB; data maps linear'],
    ['From', source.origin || sourceName],
    ['Licence', source.licence || 'not stated'],
  ];
}

/** What is pressed above the sheet, and not printed. */
function Toolbar({ id, name, sheet }: { id: string; name: string; sheet: RefObject<HTMLDivElement | null> }) {
  const [problem, setProblem] = useState('');
  return (
    <Box className="no-print" sx={{ width: '190mm', mx: 'auto', mb: 2, display: 'flex', gap: 1 }}>
      <Button component={Link} to={`/tiles/${id}/proof`}>
        Back to Proof
      </Button>
      <Button
        sx={{ ml: 'auto' }}
        onClick={() =>
          savePicture(sheet.current!, `${name}-proof-sheet.png`).catch(() =>
            setProblem('The sheet could not be made into a picture. Print it instead.'),
          )
        }
      >
        Save as PNG
      </Button>
      <Button variant="contained" onClick={() => window.print()}>
        Print or save as PDF
      </Button>
      {problem && <span role="alert">{problem}</span>}
    </Box>
  );
}

/** The tile repeated, lit, and its luminance against the band; below them every map. */
function Pictures({ name, look, band }: { name: string; look: SheetLook; band: [number, number] | null }) {
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1.3fr', gap: '4mm', alignItems: 'start' }}>
        <Box
          role="img"
          aria-label={`${name} tiled 3 × 3`}
          sx={{ aspectRatio: '1', backgroundSize: '33.334%', printColorAdjust: 'exact' }}
          style={{ backgroundImage: `url(${picture(look.thumbnail)})` }}
        />
        <img
          src={picture(look.ball)}
          alt={`${name} on a lit ball`}
          style={{ width: '100%', aspectRatio: '1', objectFit: 'cover' }}
        />
        <LuminanceFigure bins={look.bins} band={band} />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(6, 1fr)', gap: '3mm', fontSize: 11 }}>
        {[['albedo', look.thumbnail], ...Object.entries(look.maps)].map(([map, sha256]) => (
          <figure key={map} style={{ margin: 0 }}>
            <img
              src={picture(sha256)}
              alt=""
              style={{ width: '100%', aspectRatio: '1', objectFit: 'cover' }}
            />
            <figcaption>{VIEW_WORDS[map as ViewName]}</figcaption>
          </figure>
        ))}
      </Box>
    </>
  );
}

/** Every check: its state, figure, limit and sentence. */
const Checks = ({ checks }: { checks: Check[] }) => (
  <Box
    component="table"
    sx={{
      borderCollapse: 'collapse',
      fontSize: 11.5,
      lineHeight: 1.3,
      '& td, & th': {
        textAlign: 'left',
        verticalAlign: 'top',
        py: 0.35,
        pr: 1,
        borderBottom: '1px solid #ccc',
      },
    }}
  >
    <tbody>
      {checks.map(({ id, label, state, figure, limit, sentence }) => (
        <tr key={id}>
          <td style={{ color: STATE_COLOUR[state], fontWeight: 700 }}>{SIGN[state]}</td>
          <th scope="row" style={{ whiteSpace: 'nowrap' }}>
            {label}
          </th>
          <td style={{ font: `10.5px ${FIGURES}` }}>
            {figure}
            {limit && <span style={{ color: '#5c5c5c' }}> ({limit})</span>}
          </td>
          <td>{sentence}</td>
        </tr>
      ))}
    </tbody>
  </Box>
);

const Facts = ({ facts }: { facts: [string, string][] }) => (
  <Box
    component="dl"
    sx={{
      m: 0,
      display: 'grid',
      gridTemplateColumns: 'repeat(2, 70px 1fr)',
      columnGap: 1.5,
      rowGap: 0.25,
      fontSize: 11.5,
    }}
  >
    {facts.map(([fact, words]) => (
      <Box key={fact} sx={{ display: 'contents' }}>
        <dt style={{ color: '#5c5c5c' }}>{fact}</dt>
        <dd style={{ margin: 0 }}>{words}</dd>
      </Box>
    ))}
  </Box>
);

/** One page of a tile for a review: how it looks, what was measured, and how its files are meant. */
export function ProofSheetPage() {
  const { id = '' } = useParams();
  const { data: tile, error } = useQuery({
    queryKey: ['tile', id],
    queryFn: () => answerOf(api.tiles[':id'].$get({ param: { id } })),
  });
  const { data: look, error: lookError } = useQuery({
    queryKey: ['look', id],
    queryFn: async () =>
      (await answerOf(api.tiles[':id'].look.$get({ param: { id } }))) as unknown as SheetLook,
    enabled: Boolean(tile),
  });
  const name = tile?.tile.name ?? '';
  useEffect(() => {
    if (name) document.title = `${name}, proof sheet`;
  }, [name]);
  const sheet = useRef<HTMLDivElement>(null);
  const { data: projects } = useProjects();
  if (error ?? lookError) throw error ?? lookError;
  if (!tile || !look) return <LinearProgress aria-label="Measuring the tile" />;
  const { stations } = parseRecipe(tile.revision.recipe);
  const line = lineOf(stations.gauge);
  const density = projects?.projects.find(({ id: one }) => one === tile.project.id)?.density ?? null;
  return (
    <Box sx={{ minHeight: '100%', bgcolor: GREY.walls, py: 3, overflowY: 'auto', height: '100%' }}>
      <GlobalStyles styles={PRINT} />
      <Toolbar id={id} name={name} sheet={sheet} />
      <Box
        className="sheet"
        component="main"
        ref={sheet}
        sx={{
          ...PAPER,
          width: '190mm',
          mx: 'auto',
          p: '8mm',
          boxShadow: '0 1px 6px rgba(0,0,0,.25)',
          display: 'grid',
          gap: '4mm',
        }}
      >
        <Box sx={{ display: 'flex', alignItems: 'baseline', justifyContent: 'space-between' }}>
          <Typography variant="h1">{name}</Typography>
          <span style={{ font: `12px ${FIGURES}` }}>
            {tile.project.name}, version {look.revision}
          </span>
        </Box>
        <Pictures name={name} look={look} band={line ? albedoBand(line) : null} />
        <Checks checks={checksOf({ verdicts: look.verdicts, stations, density })} />
        <Facts facts={factsOf(stations, tile.tile.sourceName)} />
      </Box>
    </Box>
  );
}
