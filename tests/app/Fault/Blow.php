<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

/** What can happen in the middle of work on a craft. */
enum Blow: string
{
    /** The cable is pulled. */
    case Cable = 'cable';

    /** All power goes: pack and cable. */
    case Power = 'power';

    /** The process that works is killed; the craft itself does not notice. */
    case Kill = 'kill';

    /** The disk is full from here on: what the craft would keep is not kept. */
    case FullDisk = 'full disk';
}
