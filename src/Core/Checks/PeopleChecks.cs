using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Checks;

/// <summary>People and animals near what is planted, and berries that want a partner.</summary>
internal static class PeopleChecks
{
    public static IEnumerable<Remark> Harmful(CheckedDisplay at, Plant plant)
    {
        PlanterSurvey survey = at.Planter.Survey;
        if (survey.Public == PublicReach.Touching && plant.Harm.Skin != Hazard.NoneKnown)
        {
            yield return at.Say(
                Gravity.Weakens,
                RemarkKind.IrritatesSkin,
                [("plant", plant), ("ask", new Fact(Phrase.WhereToAsk))],
                Explain(plant, survey),
                [at.Swap(plant, p => !p.Harm.IsKnown)]
            );
        }
        bool dogs = survey.Dogs && plant.Harm.Animals == Hazard.Poisonous;
        bool children = survey.Public == PublicReach.Touching && plant.Harm.People == Hazard.Poisonous;
        if (dogs || children)
        {
            yield return at.Say(
                Gravity.Weakens,
                RemarkKind.PoisonousNear,
                [("plant", plant), ("children", children), ("ask", new Fact(Phrase.WhereToAsk))],
                Explain(plant, survey),
                [at.Swap(plant, p => p.Harm.People != Hazard.Poisonous && p.Harm.Animals != Hazard.Poisonous)]
            );
        }
    }

    /// <summary>Bulbs lie out of the public's touch, but dogs dig and children find them: said once for a stack.</summary>
    public static IEnumerable<Remark> HarmfulBulbs(CheckedDisplay at)
    {
        PlanterSurvey survey = at.Planter.Survey;
        bool children = survey.Public == PublicReach.Touching;
        List<Plant> harmful =
        [
            .. at
                .Kinds.Select(k => k.Plant)
                .Where(p => (survey.Dogs && p.Harm.Animals == Hazard.Poisonous) || (children && p.Harm.People == Hazard.Poisonous))
                .DistinctBy(p => p.Id),
        ];
        if (harmful.Count == 0)
            yield break;
        yield return at.Say(
            Gravity.Reminds,
            RemarkKind.PoisonousBulbs,
            [
                ("dogs", survey.Dogs),
                ("children", children),
                ("both", survey.Dogs && children),
                ("plants", harmful),
                ("ask", new Fact(Phrase.WhereToAsk)),
            ],
            Explain(harmful[0], survey)
        );
    }

    public static IEnumerable<Remark> Partner(CheckedDisplay at, Plant plant)
    {
        if (plant.Tending.Partner.Length == 0 || !plant.Windows.Any(w => w.Part == ColourPart.Berry))
            yield break;
        string species = plant.BotanicalName.Split(',')[0];
        bool IsPartner(Plant p) => p.BotanicalName.Equals($"{species}, male", StringComparison.Ordinal);
        bool stands = at.Plan.Displays.Any(d =>
            d.Install < at.Display.Lift && at.Display.Install < d.Lift && d.Items.Any(i => IsPartner(at.Plan.Plant(i.PlantId)))
        );
        if (stands)
            yield break;
        Plant? partner = at.Plan.Palette.FirstOrDefault(p => !p.IsRetired && IsPartner(p));
        yield return at.Say(
            Gravity.Weakens,
            RemarkKind.WithoutPartner,
            [("plant", plant), ("partner", plant.Tending.Partner)],
            new Working(WorkingKind.Partner, WorkingPhrase.NoneOnSite, [new WorkingInput(InputName.Wanted, plant.Tending.Partner)])
            {
                Parts = [("source", plant.Source)],
            },
            [
                partner is null
                    ? null
                    : new Remedy(
                        new Fact(RemedyKind.AddPlants, ("count", 1), ("plant", partner)),
                        at.Display with
                        {
                            Items = [.. at.Display.Items, new DisplayItem(partner.Id, 1)],
                        }
                    ),
            ]
        );
    }

    private static Working Explain(Plant plant, PlanterSurvey survey) =>
        new Working(
            WorkingKind.Harm,
            WorkingPhrase.WherePeopleOrDogsComeNear,
            [
                new WorkingInput(InputName.PeopleCome, survey.Public),
                new WorkingInput(InputName.Dogs, survey.Dogs ? (object?)WorkingPhrase.Yes : WorkingPhrase.No),
                new WorkingInput(InputName.EatenByPeople, plant.Harm.People),
                new WorkingInput(InputName.EatenByAnimals, plant.Harm.Animals),
                new WorkingInput(InputName.OnSkin, plant.Harm.Skin),
            ]
        )
        {
            Parts = [("source", Harm.WhereToAsk)],
        };
}
