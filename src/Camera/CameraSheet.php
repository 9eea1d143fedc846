<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 43. */
final readonly class CameraSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '43',
                'Camera and video',
                'The camera from the side, tilted by its servo to where it binds; frequency and power within the law of the place.',
                'camera',
                ['camera', 'video'],
            ),
        ];
    }
}
