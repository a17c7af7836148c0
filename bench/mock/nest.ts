// What somebody would write by hand: a controller over an array in memory, and one that inserts into MariaDB.
import 'reflect-metadata';
import { Body, Controller, Get, Module, NotFoundException, Param, Post, Query } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import { DataSource, EntitySchema, EntitySchemaOptions } from 'typeorm';
import { records, type Item } from './records.js';

const [, , port = '0', database = ''] = process.argv;
const all = records(100_000);
const byId = new Map(all.map((record) => [record.id, record]));
const schema = new EntitySchema<Item>(
  Object.assign(new EntitySchemaOptions<Item>(), {
    name: 'measured_items',
    columns: {
      id: { type: 'int', primary: true, generated: true },
      name: { type: 'varchar', length: 40 },
      size: { type: 'int' },
      kind: { type: 'varchar', length: 1 },
    },
  } as const),
);
const url = new URL(database);
const source = await new DataSource({
  type: 'mariadb',
  host: url.hostname,
  port: Number(url.port),
  username: decodeURIComponent(url.username),
  password: decodeURIComponent(url.password),
  database: url.pathname.slice(1),
  entities: [schema],
  synchronize: true,
  extra: { connectionLimit: 8 },
}).initialize();

class Items {
  list(kind: string): object {
    const found = all.filter((record) => record.kind === kind).sort((a, b) => b.size - a.size);
    return { items: found.slice(0, 20), totalItems: found.length };
  }

  read(id: string): Item {
    const record = byId.get(Number(id));
    if (record === undefined) throw new NotFoundException();
    return record;
  }

  create(body: Item): Promise<Item> {
    return source.getRepository(schema).save(body);
  }
}

/** Decorators as plain functions, so that nothing depends on how they are compiled. */
const on = (method: keyof Items, ...decorators: readonly MethodDecorator[]): void => {
  for (const decorate of decorators)
    decorate(Items.prototype, method, Object.getOwnPropertyDescriptor(Items.prototype, method) ?? {});
};
on('list', Get());
on('read', Get(':id'));
on('create', Post());
Query('kind')(Items.prototype, 'list', 0);
Param('id')(Items.prototype, 'read', 0);
Body()(Items.prototype, 'create', 0);
Controller('items')(Items);
class App {
  readonly controller = Items;
}
Module({ controllers: [Items] })(App);
const app = await NestFactory.create(App);
await app.listen(Number(port), '127.0.0.1');
process.send?.('ready');
