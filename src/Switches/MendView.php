<?php

declare(strict_types=1);

namespace Ortholex\App\Switches;

use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\Need;

/** What mends a remark: a form to send, or a sheet to go to. */
final readonly class MendView
{
    /** @param array<string, string> $fields */
    private function __construct(public string $route, public string $label, public array $fields, public bool $goes)
    {
    }

    public static function snap(Action $action, string $label): self
    {
        return new self('switches_snap', $label, ['action' => $action->value], false);
    }

    public static function choose(Action $action, string $label): self
    {
        return new self('switches_choose', $label, ['action' => $action->value], false);
    }

    public static function cell(string $cell, string $label): self
    {
        return new self('switches_cell', $label, ['cell' => $cell, 'on' => '1'], false);
    }

    /** The cell, to be looked at. */
    public static function look(string $cell, string $label): self
    {
        return new self('23', $label, ['cell' => $cell], true);
    }

    public static function turning(): self
    {
        return new self('stage', 'Let them turn when armed', ['values[motors.still_when_armed]' => '0'], false);
    }

    public static function levers(): self
    {
        return new self('switches_levers', 'Show the levers', ['do' => LeverWork::Begin->value], false);
    }

    public static function clear(Action $action, string $label): self
    {
        return new self('stage', $label, ["values[{$action->setting()}]" => ''], false);
    }

    /** The sheet on which what is missing is mended. */
    public static function sheet(Need $need): self
    {
        [$number, $name] = match ($need) {
            Need::Position, Need::Compass => ['41', '41 Location'],
            Need::Barometer, Need::Accelerometer => ['11', '11 Identity'],
            Need::DigitalSignal => ['15', '15 Motors'],
            Need::Overlay => ['42', '42 Overlay'],
            Need::CameraServo, Need::Video => ['43', '43 Camera and video'],
            Need::Recorder => ['51', '51 Logs'],
        };

        return new self($number, "To $name", [], true);
    }
}
