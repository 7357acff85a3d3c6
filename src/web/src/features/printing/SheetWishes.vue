<script setup lang="ts">
import type { PrintOptions } from '../../api/client'
import { stocks } from '../../shared/stocks'

/** How the keeper wants the sheets: together or apart, with numbers behind, with a bleed. */
const wishes = defineModel<PrintOptions>({ required: true })
const keep = (part: Partial<PrintOptions>) => (wishes.value = { ...wishes.value, ...part })
const text = (event: Event) => (event.target as HTMLInputElement).value || '0'
</script>

<template>
  <details class="mt-2">
    <summary>More wishes for the sheets</summary>
    <BFormCheckbox :model-value="wishes.useLeftovers" @update:model-value="keep({ useLeftovers: !!$event })"
      >Start on what is left of other sheets</BFormCheckbox
    >
    <BFormCheckbox :model-value="wishes.unitPerSheet" @update:model-value="keep({ unitPerSheet: !!$event })"
      >One week or day per sheet</BFormCheckbox
    >
    <BFormCheckbox :model-value="wishes.numbersOnBack" @update:model-value="keep({ numbersOnBack: !!$event })"
      >Numbers on the backs, in a second pass</BFormCheckbox
    >
    <BFormCheckbox :model-value="wishes.tiles" @update:model-value="keep({ tiles: !!$event })"
      >Print what is larger than the paper in parts</BFormCheckbox
    >
    <BFormCheckbox :model-value="wishes.cropMarks" @update:model-value="keep({ cropMarks: !!$event })"
      >Crop marks instead of cut lines</BFormCheckbox
    >
    <div class="row g-2 mt-1">
      <div class="col">
        <label for="copies" class="form-label">Copies</label>
        <input
          id="copies"
          type="number"
          min="1"
          max="20"
          class="form-control form-control-sm"
          :value="wishes.copies ?? 1"
          @change="keep({ copies: Math.min(20, Math.max(1, Number(text($event)) || 1)) })"
        />
      </div>
      <div class="col">
        <label for="only-stock" class="form-label">Stock to print</label>
        <select
          id="only-stock"
          class="form-select form-select-sm"
          :value="wishes.only ?? ''"
          @change="keep({ only: (text($event) === '0' ? null : text($event)) as PrintOptions['only'] })"
        >
          <option value="">every stock</option>
          <option v-for="s in stocks" :key="s.stock" :value="s.stock">{{ s.name }}</option>
        </select>
      </div>
    </div>
    <div class="row g-2 mt-1">
      <div class="col">
        <label for="bleed" class="form-label">Bleed</label>
        <input
          id="bleed"
          class="form-control form-control-sm"
          :value="wishes.bleed ?? '0'"
          placeholder="3 mm"
          @change="keep({ bleed: text($event) })"
        />
      </div>
      <div class="col">
        <label for="safe-edge" class="form-label">Safe edge of backs</label>
        <input
          id="safe-edge"
          class="form-control form-control-sm"
          :value="wishes.safeEdge ?? '0'"
          placeholder="1 mm"
          @change="keep({ safeEdge: text($event) })"
        />
      </div>
    </div>
  </details>
</template>
