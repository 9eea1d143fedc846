<?php

declare(strict_types=1);

namespace Ortholex\App\Craft;

use Ortholex\Bench\Link\WorldLink;
use Ortholex\Bench\State\WorldStore;
use Ortholex\Bench\Time\Pace;
use Ortholex\Bench\World\World;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Demo\Scenario;

/** The bench world behind each craft, and the cable to its board. */
final readonly class Worlds
{
    public function __construct(private Catalogue $catalogue, private Pace $pace, private string $dataFolder)
    {
    }

    public function of(Craft $craft): World
    {
        $demo = Scenario::craft()[$craft->slug] ?? throw new \LogicException("The bench holds no craft {$craft->slug}.");

        return new World(
            new WorldStore("$this->dataFolder/bench/{$craft->slug}"),
            $demo->model,
            $demo->physics,
            $this->catalogue,
            $this->pace,
        );
    }

    public function client(Craft $craft): BoardClient
    {
        return new BoardClient(new WorldLink($this->of($craft), $this->pace));
    }
}
