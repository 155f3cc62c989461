import HelpOutline from '@mui/icons-material/HelpOutlineOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link, NavLink } from 'react-router';
import { useRunningCrates } from './crates/use-running.ts';
import { Mark } from './mark.tsx';
import { Meaning, OwnWord } from './own-word.tsx';
import { GREY } from './theme.ts';
import { useHelp } from './use-help.ts';
import { ImportNote } from './yard/import-note.tsx';
import { useProjectToOpen } from './yard/last-project.ts';

/** The slim band at the top of every page. */
export function Head({ children }: { children?: ReactNode }) {
  return (
    <Box
      component="header"
      sx={{
        height: 46,
        flex: 'none',
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        px: 2,
        bgcolor: GREY.sheet,
        borderBottom: `1px solid ${GREY.line}`,
      }}
    >
      <Link
        to="/"
        style={{ display: 'flex', alignItems: 'center', gap: 9, color: 'inherit', textDecoration: 'none' }}
      >
        <Mark />
        <Typography component="span" sx={{ fontWeight: 700, fontSize: 15, whiteSpace: 'nowrap' }}>
          Zesty Tile
        </Typography>
      </Link>
      <ImportNote />
      {children}
    </Box>
  );
}

/** The button that shows the keys and our own words. */
export function HelpButton() {
  return (
    <Tooltip title="Help: keys and words (?)">
      <IconButton size="small" aria-label="Help" onClick={() => useHelp.setState({ open: true })}>
        <HelpOutline fontSize="small" />
      </IconButton>
    </Tooltip>
  );
}

const link = ({ isActive }: { isActive: boolean }) => ({
  color: isActive ? GREY.ink : GREY.soft,
  fontWeight: isActive ? 600 : 400,
  textDecoration: 'none',
  whiteSpace: 'nowrap' as const,
});

/** The ways from the Yard to the other pages. */
export function Ways({ projectId }: { projectId?: string }) {
  const toOpen = useProjectToOpen();
  const palettesOf = projectId ?? toOpen;
  const running = useRunningCrates();
  return (
    <Box
      component="nav"
      aria-label="Pages"
      sx={{ ml: 'auto', display: 'flex', alignItems: 'center', gap: 2.5 }}
    >
      <Meaning word="Yard">
        <NavLink to="/" end style={link}>
          <OwnWord word="Yard" />
        </NavLink>
      </Meaning>
      {palettesOf && (
        <NavLink to={`/projects/${palettesOf}/palettes`} style={link}>
          Palettes
        </NavLink>
      )}
      <NavLink to="/charts" style={link}>
        Charts
      </NavLink>
      <Meaning word="Recipes">
        <NavLink to="/recipes" style={link}>
          <OwnWord word="Recipes" />
        </NavLink>
      </Meaning>
      <Meaning word="Crates">
        <NavLink to="/crates" style={link}>
          <OwnWord word="Crates" />
          {running > 0 && `, ${running} running`}
        </NavLink>
      </Meaning>
      <NavLink to="/settings" style={link}>
        Settings
      </NavLink>
      <HelpButton />
    </Box>
  );
}

/** A page of one column under the head. */
export function Sheet({
  title,
  projectId,
  children,
}: {
  title: string;
  projectId?: string;
  children: ReactNode;
}) {
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <Head>
        <Ways projectId={projectId} />
      </Head>
      <Box component="main" sx={{ flex: 1, minHeight: 0, overflowY: 'auto', px: 4, py: 3 }}>
        <Box sx={{ maxWidth: 860, mx: 'auto', display: 'grid', gap: 2 }}>
          <Typography variant="h1">{title}</Typography>
          {children}
        </Box>
      </Box>
    </Box>
  );
}
