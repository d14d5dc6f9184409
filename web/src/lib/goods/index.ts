export { default as CarrierFile } from './CarrierFile.svelte';
export { default as DayLine } from './DayLine.svelte';
export { GoodsState, type Wave } from './goods.svelte';
export { default as OrderGoods } from './OrderGoods.svelte';
export { default as OrderReturns } from './OrderReturns.svelte';
export { default as Packing } from './Packing.svelte';
export { ShipmentState } from './shipment.svelte';
export { default as Waiting } from './Waiting.svelte';
