import type { ArticleId } from '@/core/guide/texts';

/** Where the guide explains a figure. */
export const guideOf = (article: ArticleId): string => `/guide#why/${article}`;
/** A procedure of the guide, at one of its stages. */
export const guideProcedure = (pack: string, procedure: string, stage?: string): string =>
  `/guide#procedure/${pack}/${procedure}${stage ? `/${stage}` : ''}`;
