import { text } from '../settings/kinds.ts';

/** By which the values of a zone refer to its mask. */
export const zoneId = text({
  label: 'Zone',
  help: 'The id of the mask these values are for.',
  default: '',
  longest: 40,
});
