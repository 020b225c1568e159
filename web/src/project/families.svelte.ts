// Families of joints, read once.
import { api, take } from '@/api/client';
import type { JointFamily } from '@/api/client';

export class Families {
  all = $state.raw<JointFamily[]>([]);

  async start(): Promise<void> {
    if (!this.all.length) this.all = await take(api.GET('/api/v1/joint-families'));
  }

  of(key: string): JointFamily | undefined {
    return this.all.find((one) => one.key === key);
  }
}

export const families = new Families();
