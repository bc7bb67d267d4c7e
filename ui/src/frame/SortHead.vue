<script setup lang="ts">
import { nextOrder, type Order } from './tableView'

/** The head of a column that a press sorts by: ascending, descending, then as the rows come. */
defineProps<{ by: string; title: string }>()
const order = defineModel<Order>({ required: true })
</script>

<template>
    <th
        scope="col"
        class="px-2 py-1.5"
        :aria-sort="order.by !== by ? 'none' : order.descends ? 'descending' : 'ascending'"
    >
        <button
            class="tracking-[inherit] whitespace-nowrap uppercase hover:text-accent"
            :title="`Sort by ${title.toLowerCase()}`"
            @click="order = nextOrder(order, by)"
        >
            {{ title
            }}<span class="inline-block w-3 text-accent" aria-hidden="true">{{
                order.by !== by ? '' : order.descends ? '↓' : '↑'
            }}</span>
        </button>
    </th>
</template>
