import type { Room, RoomRecord } from './records';

/** What rooms wrote down beside the grams, in memory, oldest first. */
export class RoomRecords {
  private readonly rooms = new Map<Room, RoomRecord[]>();

  clear(): void {
    this.rooms.clear();
  }

  add(record: RoomRecord): void {
    const list = this.rooms.get(record.room);
    if (list) list.push(record);
    else this.rooms.set(record.room, [record]);
  }

  of<R extends Room>(room: R): readonly RoomRecord<R>[] {
    return (this.rooms.get(room) ?? []) as RoomRecord<R>[];
  }

  everything(): RoomRecord[] {
    return [...this.rooms.values()].flat();
  }
}
