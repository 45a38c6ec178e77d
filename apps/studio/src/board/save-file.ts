import { readCampaignFile } from '../api/queries.ts';
import { tellProblem } from '../ui/toast.tsx';

const fileName = (name: string) =>
  `${
    name
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'campaign'
  }.velarium.json`;

/** Writes a campaign to a file of the person's. */
export async function saveCampaignFile(campaignId: string): Promise<void> {
  try {
    const file = await readCampaignFile(campaignId);
    const address = URL.createObjectURL(
      new Blob([JSON.stringify(file, null, 2)], { type: 'application/json' }),
    );
    const link = document.createElement('a');
    link.href = address;
    link.download = fileName(file.name);
    link.click();
    URL.revokeObjectURL(address);
  } catch (error) {
    tellProblem(error);
  }
}
