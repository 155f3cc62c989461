import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { type Profile, profileOf, profileProblems } from '@zesty-tile/core';
import { useState } from 'react';
import { ImportJson } from '../../api/import-json.tsx';
import { saveFile } from '../../api/save-file.ts';
import { useBench } from '../../bench/state.ts';

/** Reads a profile's JSON. @throws Error in plain words. */
function readProfile(text: string): Profile {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Error('The file is not JSON. Use one that was exported here.');
  }
  const problems = profileProblems(value);
  if (problems.length > 0) throw new Error(`The profile cannot be used. ${problems.slice(0, 3).join(' ')}`);
  return value as Profile;
}

/** Takes the profile in force out as a file to change, and one's own back in. */
export function OwnProfile() {
  const chosen = useBench((s) => s.recipe.stations.crate);
  const [problem, setProblem] = useState('');
  const save = () => {
    const profile = profileOf(chosen);
    const text = `${JSON.stringify(profile, null, 2)}\n`;
    saveFile(new Blob([text], { type: 'application/json' }), `${profile.name}.profile.json`);
  };
  const take = async (file: File) => {
    try {
      const ownProfile = readProfile(await file.text());
      setProblem('');
      useBench.getState().setDials('crate', { profile: 'own', ownProfile }, '');
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
        <span style={{ flex: 1 }}>{chosen.ownProfile ? chosen.ownProfile.name : 'Own profile'}</span>
        <ImportJson label="Profile file" onFile={(file) => void take(file)} />
        <Button onClick={save}>Export JSON</Button>
      </Box>
      {problem && <div role="alert">{problem}</div>}
    </>
  );
}
