<script setup lang="ts">
import { computed } from 'vue'
import type { PieceView, UnitView } from '../../api/client'
import type { Edit } from '../place/unit'
import CardEditor from './CardEditor.vue'

const props = defineProps<{ unit: UnitView; edit: (change: Edit) => Promise<unknown> }>()

const cards = computed<{ piece: PieceView; where: string }[]>(() => [
  ...props.unit.faces
    .flatMap((f) => f.pockets)
    .filter((p) => p.piece?.kind === 'card')
    .map((p) => ({ piece: p.piece!, where: `${p.code}, ${p.size}` })),
  ...props.unit.looseCards.map((piece) => ({ piece, where: 'in the tray' })),
])
</script>

<template>
  <div class="tell">
    <div class="d-flex align-items-center gap-2 flex-wrap mb-3">
      <h2 class="h5 mb-0">Words of week {{ unit.number }} · {{ unit.label }}</h2>
      <div class="ms-auto d-flex gap-2">
        <BButton variant="primary" @click="edit({ kind: 'addCard', cardKind: 'journaling', words: '' })">
          Add a journaling card
        </BButton>
        <BButton variant="outline-dark" @click="edit({ kind: 'addCard', cardKind: 'weekTitle', words: '' })">
          Add the week title
        </BButton>
      </div>
    </div>
    <p v-if="cards.length === 0" class="panel border rounded p-4">
      No cards in this week yet. Add a journaling card and write what the week was about; the type is fitted while you
      write.
    </p>
    <div class="cards">
      <section v-for="{ piece, where } in cards" :key="piece.id" class="panel card-panel" :aria-label="piece.title">
        <h3 class="h6">
          {{ piece.title }} <small class="visually-quiet fw-normal">{{ where }}</small>
        </h3>
        <CardEditor
          :unit-id="unit.id"
          :piece="piece"
          @write="(pieceId, words, styleKey) => edit({ kind: 'writeCard', pieceId, words, styleKey })"
          @discard="edit({ kind: 'discard', pieceId: piece.id })"
        />
      </section>
    </div>
  </div>
</template>

<style scoped>
.tell {
  flex: 1;
  overflow-y: auto;
  padding: 1rem 1.25rem 4rem;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(20rem, 1fr));
  gap: 1rem;
  align-items: start;
}
.card-panel {
  padding: 1rem;
  border: 1px solid var(--line);
  border-radius: 0.6rem;
}
</style>
