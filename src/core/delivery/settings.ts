// When mail is delivered that does not come at once, as the person set it.
import { z } from 'zod';

export const deliverySettingsSchema = z.object({
  /** The hour at which a morning begins: for what is put off “until tomorrow morning”. */
  morning: z.number().int().min(0).max(23),
});

export type DeliverySettings = z.infer<typeof deliverySettingsSchema>;

export const freshDelivery: DeliverySettings = { morning: 8 };
