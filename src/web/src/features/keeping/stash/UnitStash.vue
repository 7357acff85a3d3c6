<script setup lang="ts">
import { ref } from 'vue'
import type { StashItemView } from '../../../api/client'
import { useStashEdits, useUnitStash } from './queries'
import SpreadPlanPanel from './SpreadPlanPanel.vue'
import StashLine from './StashLine.vue'

/** The stash as it looks from one week or day: what it has set aside, and what goes with its pictures. */
const props = defineProps<{ albumId: string; unitId: string }>()
const { data, error } = useUnitStash(() => props.unitId)
const { edit } = useStashEdits()
const busy = ref(false)

async function run(what: () => Promise<unknown>) {
  busy.value = true
  try {
    await what()
  } finally {
    busy.value = false
  }
}
const one = (item: StashItemView) => ({ itemId: item.id, revision: item.revision, unitId: props.unitId, count: 1 })
const reserve = (item: StashItemView) =>
  run(() =>
    edit({
      kind: 'reserveFromStash',
      unitId: props.unitId,
      takes: [{ itemId: item.id, revision: item.revision, count: 1 }],
    }),
  )
const use = (item: StashItemView) => run(() => edit({ kind: 'useFromStash', ...one(item) }))
const giveBack = (item: StashItemView) => run(() => edit({ kind: 'returnToStash', ...one(item) }))
const spell = ref<Record<string, string>>({})
const spellWith = (item: StashItemView) =>
  run(async () => {
    const words = spell.value[item.id] ?? ''
    if (await edit({ kind: 'spellFromStash', itemId: item.id, revision: item.revision, words })) {
      spell.value[item.id] = ''
    }
  })
</script>

<template>
  <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
  <p v-else-if="!data" role="status">Looking through the stash …</p>
  <template v-else>
    <SpreadPlanPanel :album-id="albumId" :stash="data" />
    <section class="room-panel mb-3" aria-labelledby="taken-head">
      <h2 id="taken-head" class="h6">Taken for {{ data.title }}</h2>
      <p v-if="!data.taken.length" class="mb-0">Nothing is reserved or used for it yet.</p>
      <ul class="list-unstyled mb-0">
        <StashLine v-for="item in data.taken" :key="item.id" :item="item">
          <BButton size="sm" variant="primary" :disabled="busy" :aria-label="`Use one ${item.name}`" @click="use(item)"
            >Use one</BButton
          >
          <BButton
            size="sm"
            variant="outline-dark"
            :disabled="busy"
            :aria-label="`Return one ${item.name}`"
            @click="giveBack(item)"
            >Return one</BButton
          >
          <form v-if="item.entry.letters" class="d-flex gap-1" @submit.prevent="spellWith(item)">
            <BFormInput
              v-model="spell[item.id]"
              size="sm"
              maxlength="120"
              required
              :aria-label="`Words to spell with ${item.name}`"
              placeholder="Words"
            />
            <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy">Use letters</BButton>
          </form>
        </StashLine>
      </ul>
    </section>
    <section class="room-panel" aria-labelledby="matches-head">
      <h2 id="matches-head" class="h6">Goes with the pictures of {{ data.title }}</h2>
      <div v-if="data.colours.length" class="d-flex gap-1 mb-2" role="img" aria-label="Colours of the pictures">
        <span v-for="c in data.colours" :key="c" class="swatch" :style="{ background: c }"></span>
      </div>
      <p v-else class="mb-0">
        It has no pictures yet, so nothing can be matched: plan it from a kit, or import its pictures.
      </p>
      <ul class="list-unstyled mb-0">
        <StashLine v-for="m in data.matches" :key="m.item.id" :item="m.item" :reason="m.reason">
          <span v-if="m.matches" class="ok-chip">✓ Matches</span>
          <BButton
            size="sm"
            variant="outline-dark"
            :disabled="busy"
            :aria-label="`Reserve one ${m.item.name}`"
            @click="reserve(m.item)"
            >Reserve one</BButton
          >
          <BButton
            size="sm"
            variant="outline-dark"
            :disabled="busy"
            :aria-label="`Use one ${m.item.name} of the matches`"
            @click="use(m.item)"
            >Use one</BButton
          >
        </StashLine>
      </ul>
      <p v-if="data.colours.length && !data.matches.length" class="mb-0">
        Nothing free in the stash has colours yet. Add items with their colours, or from a photo.
      </p>
    </section>
  </template>
</template>

<style scoped>
.swatch {
  width: 2.5rem;
  height: 1.5rem;
  border: 1px solid var(--line);
}
.ok-chip {
  align-self: center;
  font-size: 0.85rem;
}
</style>
