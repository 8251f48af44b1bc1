import { describe, expect, it } from 'vitest';
import { uploadAttachments } from './attachments.ts';

const file = (name: string): File => new File(['x'], name);

describe('several files', () => {
  it('are attached though one of them is refused, which is named with why', async () => {
    const kept: string[] = [];
    const told: string[] = [];
    const stored = ({ name }: { readonly name: string }) => told.push(name);
    const upload = async (_owner: string, _id: string, { name }: File) => {
      if (name === 'b.exe') throw new Error('Attach a picture.');
      if (name === 'd.pdf') throw new Error('d.pdf has 30.0 MB; 20 MB is the most.');
      kept.push(name);
      return { name } as never;
    };
    const all = ['a.png', 'b.exe', 'c.png', 'd.pdf'].map(file);
    await expect(uploadAttachments('sample', 's', all, stored, upload)).rejects.toThrow(
      'b.exe: Attach a picture. d.pdf has 30.0 MB; 20 MB is the most.',
    );
    expect([kept, told]).toEqual([
      ['a.png', 'c.png'],
      ['a.png', 'c.png'],
    ]);
    await expect(uploadAttachments('sample', 's', [file('e.png')], stored, upload)).resolves.toBeUndefined();
  });
});
