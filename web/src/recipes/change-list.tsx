import Box from '@mui/material/Box';
import { type Change, changeWords, SECTION_WORDS, valueWords } from '@zesty-tile/core';
import { FIGURES, GREY } from '../theme.ts';

/** What differs between two recipes, station by station. */
export function ChangeList({ changes }: { changes: Change[] }) {
  const sections = [...new Set(changes.map((change) => change.section))];
  return (
    <Box sx={{ display: 'grid', gap: 1 }} data-testid="changes">
      {sections.map((section) => (
        <div key={section}>
          <strong>{SECTION_WORDS[section]}</strong>
          {changes
            .filter((change) => change.section === section)
            .map((change) => (
              <Box
                key={`${change.key} ${change.setting.label}`}
                sx={{
                  display: 'flex',
                  justifyContent: 'space-between',
                  gap: 2,
                  py: 0.25,
                  borderBottom: `1px solid ${GREY.line}`,
                }}
              >
                <span>
                  {changeWords(change)}
                  {change.setting.group ? `, ${change.setting.group.title.toLowerCase()}` : ''}
                </span>
                <span style={{ font: `12px ${FIGURES}`, textAlign: 'right' }}>
                  <span style={{ color: GREY.soft }}>{valueWords(change.setting, change.from)} → </span>
                  {valueWords(change.setting, change.to)}
                </span>
              </Box>
            ))}
        </div>
      ))}
    </Box>
  );
}
