<script setup lang="ts">
// Decide on a cause: one touch on the first of the order; on another one it wants a reason.
import { ref, useId } from 'vue'

const props = defineProps<{
  /** Whether it is the first of the order. */
  first: boolean
  /** Whether it is the one to start with; never so while deciding would be a guess. */
  start: boolean
  firstName: string
}>()
const emit = defineEmits<{ decide: [reason: string] }>()
const reason = ref('')
const asking = ref(false)
const field = useId()

function touched(): void {
  if (props.first) emit('decide', '')
  else asking.value = true
}
function decide(): void {
  emit('decide', reason.value.trim())
  reason.value = ''
  asking.value = false
}
</script>

<template>
  <div class="decide">
    <v-btn
      v-if="!asking"
      :variant="start ? 'flat' : 'outlined'"
      color="primary"
      data-testid="decide"
      @click="touched"
    >
      Decide on this cause
    </v-btn>
    <template v-else>
      <label :for="field">Why this one and not {{ firstName }}?</label>
      <v-textarea :id="field" v-model="reason" rows="2" auto-grow maxlength="2000" autofocus />
      <div class="row">
        <v-btn
          variant="flat"
          color="primary"
          :disabled="reason.trim() === ''"
          data-testid="decide-anyway"
          @click="decide"
        >
          Decide on this cause
        </v-btn>
        <v-btn @click="asking = false">Leave it</v-btn>
      </div>
    </template>
  </div>
</template>

<style scoped>
.decide {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.decide :deep(.v-textarea) {
  width: 100%;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
