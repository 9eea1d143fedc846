<?php

declare(strict_types=1);

namespace Ortholex\App\Book;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Storage\SettingSetType;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\BoardIdentity;
use Ortholex\Core\Firmware\Exception\NoVersion;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;

/** One aircraft, and what was last known of its board. */
#[ORM\Entity]
#[ORM\Table(name: 'craft')]
class Craft
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    /** Settings revision: goes up with every entry of the change record. */
    #[ORM\Column]
    public int $revision = 0;

    #[ORM\Column(nullable: true)]
    public ?string $hardwareId = null;

    #[ORM\Column(nullable: true)]
    public ?string $board = null;

    #[ORM\Column(nullable: true)]
    public ?string $processor = null;

    #[ORM\Column(nullable: true)]
    public ?string $serial = null;

    #[ORM\Column(nullable: true)]
    public ?string $firmware = null;

    #[ORM\Column(nullable: true)]
    public ?string $version = null;

    #[ORM\Column]
    public int $flashFrom = 0;

    #[ORM\Column]
    public int $flashEnd = 0;

    #[ORM\Column]
    public int $pageBytes = 2048;

    #[ORM\Column]
    public bool $inBootloader = false;

    /** As last read from the board. */
    #[ORM\Column(type: SettingSetType::NAME)]
    public SettingSet $settings;

    /** When its board was last read; null when never. */
    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $readAt = null;

    /**
     * What the book had of settings that were found otherwise on the craft, until it is said which stands; `at`: where the ESC sat
     * when it was read, if elsewhere.
     *
     * @var array<string, array{value: float|int|bool|string, read: string, at?: string}>
     */
    #[ORM\Column(type: Types::JSON, options: ['default' => '[]'])]
    public array $believed = [];

    /**
     * Differences that cannot be mended and were accepted, with the builder's note; another difference is news again.
     *
     * @var array<string, array{of: array<string, mixed>, note: string}> by what differs
     */
    #[ORM\Column(type: Types::JSON)]
    public array $accepted = [];

    /** The snapshot that a flash has yet to return; null when nothing waits to come back. */
    #[ORM\Column(nullable: true)]
    public ?int $toReturn = null;

    /** Which plugging of the cable the link belongs to; null when never linked or let go. */
    #[ORM\Column(nullable: true)]
    public ?int $linkedSince = null;

    /** @var list<string> what the running build leaves out */
    #[ORM\Column(type: Types::JSON)]
    public array $leftOut = [];

    /** @var list<string> */
    #[ORM\Column(type: Types::JSON)]
    public array $sensors = [];

    /**
     * What each ESC said of itself: identity or silent, and how the last write was acknowledged.
     *
     * @var array<int, array<string, mixed>> by output pad
     */
    #[ORM\Column(type: Types::JSON)]
    public array $escs = [];

    /**
     * ESC firmware that is still to be written, and the settings that are to come back with it: written down before the first byte.
     *
     * @var array<string, array<string, mixed>> by serial number of the ESC
     */
    #[ORM\Column(type: Types::JSON)]
    public array $escOrders = [];

    /** Which state of power the ESCs were last read in. */
    #[ORM\Column(nullable: true)]
    public ?int $escsSince = null;

    /** Why no ESC could be reached; '' when they were. */
    #[ORM\Column(length: 500)]
    public string $escsProblem = '';

    /** @var list<string> what must be done again after work on the craft: esc_calibration, esc_settings */
    #[ORM\Column(type: Types::JSON)]
    public array $redo = [];

    /** @var array{parts?: list<string>, wires?: list<array{string, string}>, bridged?: list<string>} drawn on sheet 13 */
    #[ORM\Column(type: Types::JSON)]
    public array $wires = [];

    /** @var array<string, mixed> what its builder has shown of its radio; see Sticks/Evidence */
    #[ORM\Column(type: Types::JSON)]
    public array $radio = [];

    /** @var array<string, float|int|bool|string> settings that stood before a test feel was put on, to be put back */
    #[ORM\Column(type: Types::JSON)]
    public array $putBack = [];

    /** @var array<string, array<string, mixed>> what was proved on the craft itself; see Proof */
    #[ORM\Column(type: Types::JSON)]
    public array $proofs = [];

    /** @var array<string, array{at: float, revision: int}> ticks of the go card */
    #[ORM\Column(type: Types::JSON)]
    public array $ticks = [];

    /** @var array<string, mixed> what was heard of its position receiver; see Location\Sky\SeenSky */
    #[ORM\Column(type: Types::JSON, options: ['default' => '[]'])]
    public array $position = [];

    /** @var array<string, mixed> readings of its compass; see Location\Compass\Turned */
    #[ORM\Column(type: Types::JSON, options: ['default' => '[]'])]
    public array $compass = [];

    /** @var array<string, mixed> what was read of its video transmitter; see Camera\VideoSeen */
    #[ORM\Column(type: Types::JSON, options: ['default' => '[]'])]
    public array $video = [];

    /** @var list<array{float, float, float}> range walk: distance in m, link quality in %, power in mW */
    #[ORM\Column(type: Types::JSON)]
    public array $walk = [];

    /** @var list<array<string, mixed>> packs of this craft; see PackCard */
    #[ORM\Column(type: Types::JSON)]
    public array $packs = [];

    /** @var array<string, mixed> what it was put together from on the bench (see CraftPlan), its faults and seed; empty: not from here */
    #[ORM\Column(type: Types::JSON, options: ['default' => '[]'])]
    public array $parts = [];

    /** Known only by its logs and settings: no board of it is here, and what is staged is set on it by hand. */
    #[ORM\Column(options: ['default' => false])]
    public bool $byHand = false;

    /** When it was put away from the Workshop; null while it stands there. */
    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $putAwayAt = null;

    /** @param list<string> $uses what a firmware build must not leave out */
    public function __construct(
        #[ORM\Column(unique: true)] public readonly string $slug,
        #[ORM\Column] public string $name,
        #[ORM\Column] public string $kind,
        #[ORM\Column] public string $purpose,
        #[ORM\Column] public string $story,
        #[ORM\Column(type: Types::JSON)] public array $uses,
    ) {
        $this->settings = SettingSet::none();
    }

    /** @return list<string> what a firmware build must not leave out: by the settings, once they are known */
    public function needs(): array
    {
        if ($this->settings->isEmpty()) {
            return $this->uses;
        }
        $needs = [];
        foreach (['location.enabled' => 'gps', 'overlay.enabled' => 'overlay'] as $name => $option) {
            if ($this->settings->flag($name)) {
                $needs[] = $option;
            }
        }
        $receiver = $this->settings->text('receiver.protocol', 'none');

        return 'none' !== $receiver ? [...$needs, $receiver] : $needs;
    }

    public function isKnown(): bool
    {
        return null !== $this->hardwareId || $this->byHand;
    }

    /** The release that it runs; today's where none was read, or what was kept of it is none. */
    public function version(): Version
    {
        try {
            return Version::parse($this->version ?? Catalogue::CURRENT);
        } catch (NoVersion) {
            return Version::parse(Catalogue::CURRENT);
        }
    }

    /**
     * What the board holds was read anew; what its ESCs hold follows them to their places.
     */
    public function takeBoard(SettingSet $board): void
    {
        $this->settings = $board->with(EscTable::only(EscTable::underPadMap($this->settings, $board)));
        $this->readAt = new \DateTimeImmutable();
    }

    public function mustRedo(string ...$things): void
    {
        $this->redo = array_values(array_unique([...$this->redo, ...$things]));
    }

    public function redone(string $thing): void
    {
        $this->redo = array_values(array_diff($this->redo, [$thing]));
    }

    public function recognise(BoardIdentity $i): void
    {
        $this->hardwareId = $i->hardwareId;
        $this->board = $i->board;
        $this->processor = $i->processor;
        $this->serial = $i->serial;
        $this->flashFrom = $i->flashFrom;
        $this->flashEnd = $i->flashEnd;
        $this->pageBytes = $i->pageBytes;
        $this->inBootloader = $i->inBootloader;
        if (!$i->inBootloader) {
            $this->firmware = $i->firmware;
            $this->version = $i->version?->toString();
            $this->leftOut = $i->leftOut;
            $this->sensors = $i->sensors;
        }
    }

    public function identity(): ?BoardIdentity
    {
        return null === $this->hardwareId
            ? null
            : new BoardIdentity(
                $this->hardwareId,
                $this->board ?? '',
                $this->processor ?? '',
                $this->flashFrom,
                $this->flashEnd,
                $this->pageBytes,
                $this->serial ?? '',
                $this->firmware ?? '',
                null === $this->version ? null : Version::parse($this->version),
                $this->inBootloader,
                $this->leftOut,
                $this->sensors,
            );
    }
}
