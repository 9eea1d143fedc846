<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Module;

/** Whose satellites a position receiver listens to. */
enum Constellations: string
{
    case Gps = 'gps';
    case Galileo = 'galileo';
    case Both = 'both';

    /** As the module spells it. */
    public function word(): string
    {
        return strtoupper($this->value);
    }
}
