<script setup lang="ts">
import { ref } from 'vue'
import type { StashProposalView } from '../../../api/client'
import { useShoppingList, useStashEdits, useUseItUp } from './queries'
import StashLine from './StashLine.vue'

/** Spreads that would use the stash up, and what to buy for the open weeks. */
const props = defineProps<{ albumId: string }>()
const { data: proposals, error } = useUseItUp(() => props.albumId)
const { data: shopping } = useShoppingList(() => props.albumId)
const { edit } = useStashEdits()
const busy = ref(false)

async function reserve(proposal: StashProposalView) {
  busy.value = true
  try {
    await edit({
      kind: 'reserveFromStash',
      unitId: proposal.unitId,
      takes: proposal.items.map(({ item }) => ({ itemId: item.id, revision: item.revision, count: 1 })),
    })
  } finally {
    busy.value = false
  }
}
const copy = () => navigator.clipboard.writeText(shopping.value!.lines.map((l) => `${l.count} ${l.what}`).join('\n'))
</script>

<template>
  <section class="room-panel mb-3" aria-labelledby="shopping-head" data-testid="shopping">
    <div class="d-flex gap-2 align-items-center mb-1">
      <h2 id="shopping-head" class="h6 mb-0">Shopping list</h2>
      <BButton v-if="shopping?.lines.length" size="sm" variant="outline-dark" class="ms-auto" @click="copy"
        >Copy list</BButton
      >
    </div>
    <p class="mb-1" role="status">{{ shopping?.words ?? 'Counting …' }}</p>
    <ul class="mb-0">
      <li v-for="line in shopping?.lines ?? []" :key="line.what">
        <strong>{{ line.count }} {{ line.what }}</strong>
        <span class="visually-quiet ms-2">{{ line.why }}</span>
      </li>
    </ul>
  </section>
  <section class="room-panel mb-3" aria-labelledby="use-head" data-testid="use-it-up">
    <h2 id="use-head" class="h6">Use it up</h2>
    <p class="mb-1">
      What the next open spreads could be made of: the oldest things first where their colours go with the pictures.
    </p>
    <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
    <p v-else-if="proposals && !proposals.length" class="mb-0">Nothing free in the stash suits the open spreads.</p>
    <div v-for="p in proposals ?? []" :key="p.unitId" class="mb-2">
      <div class="d-flex gap-2 align-items-center">
        <h3 class="h6 mb-0">{{ p.title }}</h3>
        <BButton
          size="sm"
          variant="outline-dark"
          :disabled="busy"
          :aria-label="`Reserve these for ${p.title}`"
          @click="reserve(p)"
          >Reserve these</BButton
        >
      </div>
      <ul class="list-unstyled mb-0">
        <StashLine
          v-for="i in p.items"
          :key="i.item.id"
          :item="i.item"
          :reason="i.pocket ? `For a pocket of ${i.pocket}. ${i.reason}` : i.reason"
        />
      </ul>
    </div>
  </section>
</template>
