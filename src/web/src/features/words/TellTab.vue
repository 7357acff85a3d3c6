<script setup lang="ts">
import { computed } from 'vue'
import type { NoteView, PieceView, UnitView } from '../../api/client'
import type { Edit } from '../placing/unit'
import CardEditor from './CardEditor.vue'
import { useCardEdits } from './cards'
import { cardKinds, noteKinds } from './kinds'
import StoryPanel from './StoryPanel.vue'
import WordFindings from './WordFindings.vue'

const props = defineProps<{
  unit: UnitView
  edit: (change: Edit) => Promise<unknown>
  /** One of several in a room of the album, which has said what it is called. */
  among?: boolean
}>()
const cardEdits = useCardEdits(
  () => props.unit,
  (change) => props.edit(change),
)

const cardOf = (note: NoteView) =>
  props.edit({
    kind: 'addCard',
    cardKind: note.kind === 'overheard' ? 'overheard' : 'journaling',
    words: note.text,
    day: props.unit.days.length > 1 ? note.day : null,
  })

const cards = computed<{ piece: PieceView; where: string }[]>(() => [
  ...props.unit.faces
    .flatMap((f) => f.pockets)
    .filter((p) => p.piece?.kind === 'card')
    .map((p) => ({ piece: p.piece!, where: `${p.code}, ${p.size}` })),
  ...props.unit.looseCards.filter((piece) => piece.kind === 'card').map((piece) => ({ piece, where: 'in the tray' })),
])
</script>

<template>
  <div class="tell" :class="{ among }">
    <div class="d-flex align-items-center gap-2 flex-wrap mb-3">
      <h2 v-if="!among" class="h5 mb-0">Words of {{ unit.inSentence }} · {{ unit.label }}</h2>
      <div class="ms-auto d-flex gap-2">
        <BButton variant="primary" @click="edit({ kind: 'addCard', cardKind: 'journaling', words: '' })">
          Add a journaling card
        </BButton>
        <BDropdown text="Add another card" variant="outline-dark" data-testid="add-card">
          <BDropdownItemButton
            v-for="k in cardKinds.slice(1)"
            :key="k.kind"
            @click="edit({ kind: 'addCard', cardKind: k.kind })"
          >
            {{ k.name }} <small class="visually-quiet">{{ k.hint }}</small>
          </BDropdownItemButton>
        </BDropdown>
      </div>
    </div>
    <section v-if="unit.notes.length" class="panel border rounded p-3 mb-3" aria-label="Notes to write from">
      <h3 class="h6">To write from</h3>
      <ul class="mb-0">
        <li v-for="note in unit.notes" :key="note.id">
          <span class="visually-quiet">{{ note.dayLabel }} {{ note.time }}</span>
          <span v-if="note.kind !== 'plain'" class="kind">{{ noteKinds[note.kind] }}</span> {{ note.text }}
          <button
            type="button"
            class="btn btn-sm btn-link p-0 align-baseline"
            :aria-label="`Make a card: ${note.text}`"
            @click="cardOf(note)"
          >
            Make a card
          </button>
        </li>
      </ul>
    </section>
    <StoryPanel :unit="unit" />
    <WordFindings :unit="unit" :edit="edit" />
    <p v-if="cards.some(({ piece }) => piece.setting?.byHand)">
      <a :href="`/api/units/${unit.id}/cue-sheet`" download data-testid="cue-sheet"
        >Cue sheet: what to write where (PDF)</a
      >
    </p>
    <p v-if="cards.length === 0" class="panel border rounded p-4">
      No cards here yet. Add a journaling card and write what happened; the type is fitted while you write.
    </p>
    <div class="cards">
      <section v-for="{ piece, where } in cards" :key="piece.id" class="panel card-panel" :aria-label="piece.title">
        <h3 class="h6">
          {{ piece.title }} <small class="visually-quiet fw-normal">{{ where }}</small>
        </h3>
        <CardEditor :unit="unit" :piece="piece" v-on="cardEdits(piece)" />
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
.tell.among {
  overflow: visible;
  padding: 0;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(20rem, 1fr));
  gap: 1rem;
  align-items: start;
}
.kind {
  padding: 0 0.4em;
  border: 1px solid var(--line);
  border-radius: 0.6em;
  font-size: 0.85em;
}
.card-panel {
  padding: 1rem;
  border: 1px solid var(--line);
  border-radius: 0.6rem;
}
</style>
