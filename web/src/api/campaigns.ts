import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api, unwrap, type Schemas } from './client';

/** All campaigns, newest first. */
export function useCampaigns() {
  return useQuery({ queryKey: ['campaigns'], queryFn: () => unwrap(api.GET('/api/v1/campaigns')) });
}

export function useCampaign(id: number) {
  return useQuery({
    queryKey: ['campaigns', id],
    queryFn: () => unwrap(api.GET('/api/v1/campaigns/{id}', { params: { path: { id } } })),
    retry: false,
  });
}

/** The campaigns that a machine is in. */
export function useCampaignsOf(tag: string) {
  return useQuery({
    queryKey: ['campaigns', 'of', tag],
    queryFn: () => unwrap(api.GET('/api/v1/assets/{tag}/campaigns', { params: { path: { tag } } })),
    retry: false,
  });
}

/** What a campaign would be. */
export function useCampaignPreview(draft: Schemas['CampaignDraft'] | null) {
  return useQuery({
    queryKey: ['campaigns', 'preview', draft],
    queryFn: () => unwrap(api.POST('/api/v1/campaigns/preview', { body: draft! })),
    enabled: draft !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
}
