<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { tracks as words } from './tracks';

  let { tracks }: { tracks: Schemas['Tracks'] } = $props();
</script>

<dl class="flex gap-3 text-[11.5px]" aria-label="three tracks">
  {#each words(tracks) as track (track.name)}
    <div class="w-24">
      <dt class="sr-only">{track.name}</dt>
      <dd>
        <span class="text-second">{track.words}</span>
        <span class="mt-0.5 block h-[3px] bg-hairline"><span class="block h-[3px] {track.tone}" style:width="{track.share}%"></span></span>
      </dd>
    </div>
  {/each}
</dl>
