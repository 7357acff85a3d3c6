<script setup lang="ts">
import { computed } from 'vue'
import { offered } from '../words/offered'
import { useAlbumWords } from '../words/queries'

/** A choice among the album's patterns, or none of them where that has a name. */
const props = defineProps<{ id: string; albumId: string; none?: string }>()
const chosen = defineModel<string | null | undefined>({ required: true })
const { data: words } = useAlbumWords(() => props.albumId)
const patterns = computed(() => offered(words.value?.styles, 'filler', chosen.value))
</script>

<template>
  <BFormSelect :id="id" size="sm" :model-value="chosen ?? ''" @update:model-value="chosen = ($event as string) || null">
    <option v-if="none" value="">{{ none }}</option>
    <option v-for="p in patterns" :key="p.key" :value="p.key">{{ p.family }}: {{ p.name }}</option>
  </BFormSelect>
</template>
