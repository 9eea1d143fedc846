<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Span;

use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Fact\Fact;

/** Which channel carries which stick: a bijection of the sticks shown, or what clashes. */
final readonly class ChannelOrder
{
    /**
     * @param array<string, int>  $numbers  stick => number, of those that are clear
     * @param array<string, bool> $reversed stick => whether it runs backwards
     * @param Fact|null           $clash    of OrderCode; null when it is a bijection
     */
    private function __construct(public array $numbers, public array $reversed, public ?Fact $clash)
    {
    }

    /** @param list<MovedStick> $moved one a stick */
    public static function of(array $moved): self
    {
        $numbers = $reversed = $by = [];
        $clash = null;
        foreach ($moved as $one) {
            $stick = $one->asked->value;
            if (null === $one->number) {
                $clash ??= null === $one->rival
                    ? Fact::of(OrderCode::NothingMoved, stick: $one->asked)
                    : Fact::of(OrderCode::TwoMoved, stick: $one->asked, rival: $one->rival);
                continue;
            }
            if (isset($by[$one->number])) {
                $clash ??= Fact::of(OrderCode::SameChannel, stick: $one->asked, other: $by[$one->number], number: $one->number);
            }
            $by[$one->number] = $one->asked;
            $numbers[$stick] = $one->number;
            $reversed[$stick] = $one->reversed;
        }
        foreach (Channel::cases() as $channel) {
            if (!isset($numbers[$channel->value])) {
                $clash ??= Fact::of(OrderCode::NotShown, stick: $channel);
            }
        }

        return new self($numbers, $reversed, $clash);
    }

    /** @return array<string, int|bool> settings that follow; none unless it is a bijection */
    public function settings(): array
    {
        $settings = [];
        foreach (null === $this->clash ? $this->numbers : [] as $stick => $number) {
            $settings["channel.$stick.number"] = $number;
            $settings["channel.$stick.reversed"] = $this->reversed[$stick];
        }

        return $settings;
    }
}
