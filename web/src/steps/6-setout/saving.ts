// What a change saves, in words.
import type { FaceSetOut } from '@/api/client';
import type { Units } from '@/kit/units';

type Terms = NonNullable<FaceSetOut['sum']>;

/** "one panel less, 2.75 m of joint less"; empty where nothing changes. */
export function saving(now: Terms, before: Terms, units: Units): string {
  const found: string[] = [];
  const count = (by: number, one: string, several: string) => {
    if (by) found.push(`${Math.abs(by)} ${Math.abs(by) === 1 ? one : several} ${by < 0 ? 'less' : 'more'}`);
  };
  count(now.panels - before.panels, 'panel', 'panels');
  count(now.members - before.members, 'joint', 'joints');
  count(now.off_module - before.off_module, 'panel off the module', 'panels off the module');
  count(
    now.lopsided - before.lopsided,
    'joint without its mirror image',
    'joints without their mirror image',
  );
  count(now.astray - before.astray, 'joint off those below', 'joints off those below');
  const amount = (by: number, dimension: string, of: string) => {
    if (Math.abs(by) > 1e-6)
      found.push(`${units.full(Math.abs(by), dimension)} of ${of} ${by < 0 ? 'less' : 'more'}`);
  };
  amount(now.member_length - before.member_length, 'distance', 'joint');
  amount(now.waste - before.waste, 'area', 'waste');
  return found.length ? `${found.join(', ')}.` : '';
}
