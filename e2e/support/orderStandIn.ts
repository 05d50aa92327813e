/** Gives an order at the page of a stand-in, as its buttons do. @returns what it answers */
export async function orderStandIn(page: string, order: object): Promise<unknown> {
  const reply = await fetch(new URL('/order', page), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(order),
  });
  return reply.json();
}
