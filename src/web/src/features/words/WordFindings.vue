<script setup lang="ts">
import { computed, ref } from 'vue'
import { type FindingView, type UnitView } from '../../api/client'
import { editAlbum, editStories } from '../../shared/edits'
import { useAct } from '../../shared/act'
import { useAlbumWords, useFindings } from './queries'
import type { Edit } from '../placing/unit'

const props = defineProps<{ unit: UnitView; edit: (change: Edit) => Promise<unknown> }>()
const { data: findings } = useFindings(
  () => props.unit.albumId,
  () => props.unit.id,
)

const { act } = useAct(() => props.unit.albumId)
const { data: album } = useAlbumWords(() => props.unit.albumId)
const passed = ref(new Set<string>())
const keyOf = (f: FindingView) => `${f.pieceId}|${f.kind}|${f.found}|${f.start}`
const shown = computed(() => findings.value?.filter((f) => !passed.value.has(keyOf(f))) ?? [])
const passOver = (f: FindingView) => (passed.value = new Set([...passed.value, keyOf(f)]))

const learn = (finding: FindingView) =>
  act(() =>
    editAlbum(props.unit.albumId, {
      kind: 'setKnownWords',
      revision: album.value!.revision,
      knownWords: [...album.value!.knownWords, finding.found.replace(/[’']s$/, '')],
    }),
  )

const passAlways = (finding: FindingView) =>
  act(() =>
    editAlbum(props.unit.albumId, {
      kind: 'passOver',
      revision: album.value!.revision,
      passedOver: [...album.value!.passedOver, finding.key!],
    }),
  )

const mend = (finding: FindingView) =>
  finding.storyId
    ? act(() =>
        editStories(props.unit.albumId, {
          kind: 'writeStory',
          storyId: finding.storyId!,
          revision: finding.storyRevision!,
          words: finding.mendedWords!,
        }),
      )
    : props.edit({ kind: 'writeCard', pieceId: finding.pieceId, words: finding.mendedWords })
</script>

<template>
  <section
    v-if="shown.length"
    class="panel border rounded p-3 mb-3"
    aria-label="Before printing"
    data-testid="findings"
  >
    <h3 class="h6">Look at this before printing</h3>
    <ul class="findings">
      <li v-for="f in shown" :key="keyOf(f)">
        <span class="visually-quiet">{{ f.code ?? 'in the tray' }}</span>
        <span v-if="f.found.trim()">“{{ f.found }}”</span>
        {{ f.says }}
        <button v-if="f.mendedWords != null" type="button" class="btn btn-sm btn-outline-dark" @click="mend(f)">
          {{ f.mend?.trim() ? `Write “${f.mend}”` : 'Mend' }}
        </button>
        <button
          v-if="f.kind === 'spelling' && album"
          type="button"
          class="btn btn-sm btn-link p-0"
          :aria-label="`“${f.found}” is always right`"
          @click="learn(f)"
        >
          Always right
        </button>
        <button
          v-else-if="album"
          type="button"
          class="btn btn-sm btn-link p-0"
          :aria-label="`Always ignore “${f.found || f.says}”`"
          @click="passAlways(f)"
        >
          Always ignore
        </button>
        <button
          type="button"
          class="btn btn-sm btn-link p-0"
          :aria-label="`Ignore “${f.found || f.says}” this once`"
          @click="passOver(f)"
        >
          Ignore
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.findings {
  display: grid;
  gap: 0.4rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
.findings li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.6rem;
  align-items: baseline;
  padding-left: 0.6rem;
  border-left: 5px solid var(--warn);
}
</style>
