// The shop of the building in hand: what is cut next, out of what, and what is cut already.
import { api, inBuilding, take } from '@/api/client';
import type { Building, Shop, ShopBoards, ShopChoices, ShopPiece } from '@/api/client';
import { Live } from '@/api/live.svelte';
import { Solving } from '@/api/solving.svelte';
import { session } from './session.svelte';

interface Question {
  project: string;
  building: string;
  revision: number;
  system: string;
}

class ShopStore {
  readonly solving = new Solving((done, of) => `step ${done + 1} of ${of}`);
  readonly live = new Live<Question, Shop>(({ project, building }) =>
    this.solving.run((ticket) =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/shop', {
          params: { ...inBuilding(project, building).params, query: { ticket } },
        }),
      ),
    ),
  );

  /** Write what the shop has or has done. */
  save(building: Building, change: Partial<ShopChoices>, text: string): Promise<boolean> {
    const shop = { ...(building.shop ?? {}), ...change } as ShopChoices;
    return session.saveBuilding({ ...building, shop }, text, 'D8');
  }

  /** A piece is cut as it is asked for. */
  cut(building: Building, piece: ShopPiece): Promise<boolean> {
    const others = (building.shop?.cut ?? []).filter((one) => one.key !== piece.key);
    const done = { key: piece.key, length: piece.length, width: piece.width, count: piece.count };
    return this.save(building, { cut: [...others, done] }, `${piece.key} cut`);
  }

  /** It was cut to another length: it goes to the rack, and the piece is still to be cut. */
  wrong(building: Building, piece: ShopPiece, length: number, said: string): Promise<boolean> {
    const rack = [...(building.shop?.rack ?? []), { length, thick: piece.thick, deep: piece.deep, count: 1 }];
    return this.save(building, { rack }, `${piece.key} came out ${said}, to the rack`);
  }

  uncut(building: Building, piece: ShopPiece): Promise<boolean> {
    const cut = (building.shop?.cut ?? []).filter((one) => one.key !== piece.key);
    return this.save(building, { cut }, `${piece.key} is to be cut again`);
  }

  boards(building: string, ticket: string): Promise<ShopBoards[]> {
    const place = inBuilding(session.open?.project.id ?? '', building);
    return take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/shop/boards', {
        params: { ...place.params, query: { ticket } },
      }),
    );
  }
}

export const shop = new ShopStore();
