import { Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** A mock server: what it serves, where, and whether it should be running. */
@Entity({ name: 'mocks' })
@Index(['designId'])
export class MockRow {
  @PrimaryColumn({ type: 'char', length: 36 })
  id: string;

  @Column({ type: 'char', length: 36, name: 'design_id' })
  designId: string;

  @Column({ type: 'boolean' })
  running: boolean;

  /** What goes wrong on purpose, as JSON. */
  @Column({ type: 'text' })
  faults: string;

  /** What it signs with. */
  @Column({ type: 'char', length: 43 })
  secret: string;

  @Column({ type: 'datetime', precision: 3, name: 'created_at' })
  createdAt: Date;
}

/** An arrangement or a release that a mock serves behind a port of its own. */
@Entity({ name: 'mock_endpoints' })
export class EndpointRow {
  @PrimaryColumn({ type: 'char', length: 36, name: 'mock_id' })
  mockId: string;

  @PrimaryColumn({ type: 'varchar', length: 20 })
  kind: 'arrangement' | 'release';

  /** The name of the arrangement, or the label of the release. */
  @PrimaryColumn({ type: 'varchar', length: 60 })
  name: string;

  /** Its place among those of its mock; arrangements come first. */
  @Column({ type: 'int', unsigned: true })
  position: number;

  /** 0 before it has one. */
  @Column({ type: 'int', unsigned: true })
  port: number;

  /** Whether it answers requests that name no version, where a header tells it from others. */
  @Column({ type: 'boolean', default: false })
  unversioned: boolean;
}
