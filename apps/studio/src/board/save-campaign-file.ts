import { readCampaignFile } from '../api/queries.ts';
import { saveJson } from '../ui/save-file.ts';
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
    saveJson(file, fileName(file.name));
  } catch (error) {
    tellProblem(error);
  }
}
