<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AlbumView } from '../../api/client'
import { counted } from '../../shared/words'
import CommentsPanel from './CommentsPanel.vue'
import { useCompany } from './company'

/** Who else is at this album, what they changed while one was writing, and what is said about the spread. */
const props = defineProps<{ album: AlbumView; unitId: string }>()
const { signedIn, others, comments, waiting, show } = useCompany(
  () => props.album.id,
  () => props.unitId,
)
const open = ref(false)
/** Those of the week or day in hand, or of the whole album. */
const here = computed(() => (comments.value ?? []).filter((c) => !props.unitId || c.unitId === props.unitId))
const undone = computed(() => here.value.filter((c) => !c.done).length)
const whereIs = (unitId?: string | null) => props.album.units.find((u) => u.id === unitId)?.title ?? 'the album'
</script>

<template>
  <button
    v-if="waiting"
    type="button"
    class="btn btn-sm btn-primary"
    title="Others changed this album while you were writing. What you wrote and did not save is given up."
    @click="show"
  >
    Show changes
  </button>
  <span v-if="others.length" class="company" role="status" data-testid="company">
    <span v-for="(o, i) in others" :key="i" class="companion">{{ o.name }}: {{ whereIs(o.unitId) }}</span>
  </span>
  <BButton
    v-if="signedIn"
    size="sm"
    variant="outline-dark"
    :title="undone ? `${counted(undone, 'open comment')} here` : 'Comments'"
    @click="open = true"
    >Comments<template v-if="undone"> {{ undone }}</template></BButton
  >
  <CommentsPanel v-if="signedIn" v-model="open" :album="album" :unit-id="unitId" :comments="here" />
</template>

<style scoped>
.company {
  display: flex;
  gap: 0.4rem;
  max-width: 24rem;
  overflow: hidden;
}
.companion {
  padding: 0.1rem 0.55rem;
  border: 1px solid var(--line);
  border-radius: 1rem;
  background: var(--card);
  white-space: nowrap;
}
</style>
