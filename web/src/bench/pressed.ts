import { GREY } from '../theme.ts';

/** A small button that stays pressed. */
export const pressable = (pressed: boolean) => ({
  minWidth: 0,
  px: 0.9,
  py: 0.25,
  fontSize: 12.5,
  ...(pressed ? { bgcolor: GREY.ink, color: GREY.onInk, '&:hover': { bgcolor: GREY.ink } } : {}),
});
