<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

/** What is looked at: the camera, or its transmitter. */
enum CameraLook: string
{
    case Camera = 'camera';
    case Video = 'video';

    public function label(): string
    {
        return match ($this) {
            self::Camera => 'Camera',
            self::Video => 'Video transmitter',
        };
    }
}
