<script setup lang="ts">
import type { TuckFace, TuckPiece } from '../../api/client'
import { nextWords } from './tuck'

/** A side of a leaf: each pocket where it lies, its piece small, and how far that is. */
defineProps<{ face: TuckFace; busy: boolean }>()
const emit = defineEmits<{ advance: [piece: TuckPiece] }>()

/** An inch on the map, in pixels: a 9 x 12 page is as wide as a phone. */
const inch = 36
const box = (p: { x: number; y: number; width: number; height: number }) => ({
  left: `${p.x * inch}px`,
  top: `${p.y * inch}px`,
  width: `${p.width * inch}px`,
  height: `${p.height * inch}px`,
})
const marks: Record<TuckPiece['next'], string> = {
  print: 'print',
  cut: 'cut',
  takeOutFirst: 'swap',
  tuckIn: 'tuck in',
  done: '✓',
}
const short = (code: string) => code.split(' ').at(-1)!
/** Begins with what is seen on it. */
const nameOf = (pocket: TuckFace['pockets'][number]) =>
  `${short(pocket.code)} ${marks[pocket.piece!.next]}: ${pocket.piece!.number}, ${pocket.piece!.title}, ` +
  nextWords[pocket.piece!.next] +
  (pocket.isStuck ? ', goes in with the piece behind it' : '')
</script>

<template>
  <figure class="m-0">
    <figcaption class="small mb-1">
      {{ face.side === 'front' ? 'Front' : 'Back' }}: <strong>{{ face.unitTitle }}</strong>
    </figcaption>
    <div class="page" :style="{ width: `${face.widthInches * inch}px`, height: `${face.heightInches * inch}px` }">
      <template v-for="pocket in face.pockets" :key="pocket.code">
        <button
          v-if="pocket.piece"
          type="button"
          class="pocket"
          :class="pocket.piece.next"
          :style="box(pocket)"
          :disabled="busy"
          :aria-label="nameOf(pocket)"
          @click="emit('advance', pocket.piece)"
        >
          <img v-if="pocket.piece.picture" :src="pocket.piece.picture" alt="" loading="lazy" />
          <span class="code">{{ short(pocket.code) }}</span>{{ ' '
          }}<span class="mark">{{ marks[pocket.piece.next] }}</span>
        </button>
        <span v-else class="pocket empty" :style="box(pocket)"
          ><span class="code">{{ short(pocket.code) }}</span></span
        >
      </template>
    </div>
  </figure>
</template>

<style scoped>
.page {
  position: relative;
  background: #fff;
  border: 1px solid var(--line);
  box-shadow: 0 2px 6px rgb(0 0 0 / 0.2);
}
.pocket {
  position: absolute;
  display: block;
  padding: 0;
  overflow: hidden;
  background: #f2ede2;
  border: 1px solid #8b8072;
}
.pocket img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  opacity: 0.35;
}
.pocket.tuckIn img,
.pocket.takeOutFirst img {
  opacity: 0.75;
}
.pocket.done img {
  opacity: 1;
}
.pocket.empty {
  border-style: dashed;
}
.mark,
.code {
  position: absolute;
  padding: 0 5px;
  background: #fffdf7;
  color: #2b2622;
  font-size: 0.8rem;
  line-height: 1.45;
  border-radius: 3px;
}
.mark {
  right: 3px;
  bottom: 3px;
  font-weight: 700;
}
.done .mark {
  background: #2f4a3a;
  color: #fff;
}
.code {
  left: 3px;
  top: 3px;
}
</style>
