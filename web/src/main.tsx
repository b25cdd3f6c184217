import './kinds';
import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider, useRouteError } from 'react-router';
import { Frame } from './app/Frame';
import { Floor } from './floor/Floor';
import './index.css';
import { Empty, Loading } from './parts/pieces';

const OpeningPage = lazy(() => import('./workshop/OpeningPage').then((m) => ({ default: m.OpeningPage })));
const PractisePage = lazy(() => import('./temper/PractisePage').then((m) => ({ default: m.PractisePage })));
const Bench = lazy(() => import('./bench/Bench').then((m) => ({ default: m.Bench })));
const BatchPage = lazy(() => import('./trace/BatchPage').then((m) => ({ default: m.BatchPage })));
const InspectionPage = lazy(() => import('./beans/InspectionPage').then((m) => ({ default: m.InspectionPage })));
const LotPage = lazy(() => import('./beans/LotPage').then((m) => ({ default: m.LotPage })));
const TubPage = lazy(() => import('./trace/TubPage').then((m) => ({ default: m.TubPage })));
const TracePage = lazy(() => import('./trace/TracePage').then((m) => ({ default: m.TracePage })));
const RecallPage = lazy(() => import('./trace/RecallPage').then((m) => ({ default: m.RecallPage })));
const ComplaintsPage = lazy(() => import('./trace/ComplaintsPage').then((m) => ({ default: m.ComplaintsPage })));
const StepPage = lazy(() => import('./trace/StepPage').then((m) => ({ default: m.StepPage })));
const BatchesPage = lazy(() => import('./trace/Lists').then((m) => ({ default: m.BatchesPage })));
const LotsPage = lazy(() => import('./trace/Lists').then((m) => ({ default: m.LotsPage })));
const ComparePage = lazy(() => import('./roast/ComparePage').then((m) => ({ default: m.ComparePage })));
const LoadPage = lazy(() => import('./roast/LoadPage').then((m) => ({ default: m.LoadPage })));
const LoadsPage = lazy(() => import('./roast/LoadsPage').then((m) => ({ default: m.LoadsPage })));
const ProgramPage = lazy(() => import('./roast/ProgramPage').then((m) => ({ default: m.ProgramPage })));
const ProgramsPage = lazy(() => import('./roast/ProgramsPage').then((m) => ({ default: m.ProgramsPage })));
const RoastersPage = lazy(() => import('./roast/RoastersPage').then((m) => ({ default: m.RoastersPage })));
const TrialPage = lazy(() => import('./roast/TrialPage').then((m) => ({ default: m.TrialPage })));
const TrialPlan = lazy(() => import('./roast/TrialPlan').then((m) => ({ default: m.TrialPlan })));
const TrialsPage = lazy(() => import('./roast/TrialsPage').then((m) => ({ default: m.TrialsPage })));
const HitsPage = lazy(() => import('./grind/HitsPage').then((m) => ({ default: m.HitsPage })));
const RecipesPage = lazy(() => import('./recipe/RecipesPage').then((m) => ({ default: m.RecipesPage })));
const RecipePage = lazy(() => import('./recipe/RecipePage').then((m) => ({ default: m.RecipePage })));
const BowlPage = lazy(() => import('./recipe/BowlPage').then((m) => ({ default: m.BowlPage })));
const WeighingPage = lazy(() => import('./recipe/WeighingPage').then((m) => ({ default: m.WeighingPage })));
const IngredientsPage = lazy(() => import('./recipe/IngredientsPage').then((m) => ({ default: m.IngredientsPage })));
const LossBookPage = lazy(() => import('./losses/LossBookPage').then((m) => ({ default: m.LossBookPage })));
const StockTakePage = lazy(() => import('./losses/StockTakePage').then((m) => ({ default: m.StockTakePage })));
const ProductsPage = lazy(() => import('./products/ProductsPage').then((m) => ({ default: m.ProductsPage })));
const OrdersPage = lazy(() => import('./orders/OrdersPage').then((m) => ({ default: m.OrdersPage })));
const SalesPage = lazy(() => import('./orders/SalesPage').then((m) => ({ default: m.SalesPage })));
const StorePage = lazy(() => import('./store/StorePage').then((m) => ({ default: m.StorePage })));
const TastingPage = lazy(() => import('./taste/TastingPage').then((m) => ({ default: m.TastingPage })));
const TastingsPage = lazy(() => import('./taste/TastingsPage').then((m) => ({ default: m.TastingsPage })));
const SessionsPage = lazy(() => import('./taste/SessionsPage').then((m) => ({ default: m.SessionsPage })));
const SessionPlanPage = lazy(() => import('./taste/SessionPlanPage').then((m) => ({ default: m.SessionPlanPage })));
const SessionPage = lazy(() => import('./taste/SessionPage').then((m) => ({ default: m.SessionPage })));
const GuestPage = lazy(() => import('./taste/GuestPage').then((m) => ({ default: m.GuestPage })));
const WordsPage = lazy(() => import('./taste/WordsPage').then((m) => ({ default: m.WordsPage })));
const OtherMakersPage = lazy(() => import('./taste/OtherMakersPage').then((m) => ({ default: m.OtherMakersPage })));
const OverTimePage = lazy(() => import('./taste/OverTimePage').then((m) => ({ default: m.OverTimePage })));
const MattersPage = lazy(() => import('./taste/MattersPage').then((m) => ({ default: m.MattersPage })));
const AllTrialsPage = lazy(() => import('./trials/TrialsPage').then((m) => ({ default: m.TrialsPage })));
const AnyTrialPlanPage = lazy(() => import('./trials/TrialPlanPage').then((m) => ({ default: m.TrialPlanPage })));
const AnyTrialPage = lazy(() => import('./trials/TrialPage').then((m) => ({ default: m.TrialPage })));
const WorkshopPage = lazy(() => import('./workshop/WorkshopPage').then((m) => ({ default: m.WorkshopPage })));

const page = (element: React.ReactNode) => <Suspense fallback={<Loading />}>{element}</Suspense>;

function Broken() {
  const error = useRouteError();
  return (
    <main className="p-8">
      <Empty
        title="This screen failed."
        action={
          <a className="button" href="/">
            To the floor
          </a>
        }
      >
        {error instanceof Error ? error.message : 'Something went wrong here.'} What was saved is kept, and drafts are
        still in this browser.
      </Empty>
    </main>
  );
}

const router = createBrowserRouter([
  // A guest’s phone sees nothing of the workshop around it.
  { path: '/guest/:id', element: page(<GuestPage />), errorElement: <Broken /> },
  {
    element: <Frame />,
    errorElement: <Broken />,
    children: [
      { path: '/', element: <Floor /> },
      { path: '/station/:station', element: page(<Bench />) },
      { path: '/batches', element: page(<BatchesPage />) },
      { path: '/batch/:code', element: page(<BatchPage />) },
      { path: '/lots', element: page(<LotsPage />) },
      { path: '/lot/:code', element: page(<LotPage />) },
      { path: '/lot/:code/inspect', element: page(<InspectionPage />) },
      { path: '/tub/:code', element: page(<TubPage />) },
      { path: '/trace/:code', element: page(<TracePage />) },
      { path: '/complaints', element: page(<ComplaintsPage />) },
      { path: '/recall/:id', element: page(<RecallPage />) },
      { path: '/step/:id', element: page(<StepPage />) },
      { path: '/roasting', element: page(<ProgramsPage />) },
      { path: '/roasting/program/:id', element: page(<ProgramPage />) },
      { path: '/roasting/loads', element: page(<LoadsPage />) },
      { path: '/roasting/load/:code', element: page(<LoadPage />) },
      { path: '/roasting/compare', element: page(<ComparePage />) },
      { path: '/roasting/trials', element: page(<TrialsPage />) },
      { path: '/roasting/trial/new', element: page(<TrialPlan />) },
      { path: '/roasting/trial/:id', element: page(<TrialPage />) },
      { path: '/roasting/roasters', element: page(<RoastersPage />) },
      { path: '/grinding/:machine', element: page(<HitsPage />) },
      { path: '/practise', element: page(<PractisePage />) },
      { path: '/recipes', element: page(<RecipesPage />) },
      { path: '/recipe/:id', element: page(<RecipePage />) },
      { path: '/bowl/:code', element: page(<BowlPage />) },
      { path: '/weighing/:id', element: page(<WeighingPage />) },
      { path: '/ingredients', element: page(<IngredientsPage />) },
      { path: '/losses', element: page(<LossBookPage />) },
      { path: '/stock-take', element: page(<StockTakePage />) },
      { path: '/store', element: page(<StorePage />) },
      { path: '/products', element: page(<ProductsPage />) },
      { path: '/orders', element: page(<OrdersPage />) },
      { path: '/orders/:id', element: page(<OrdersPage />) },
      { path: '/sales', element: page(<SalesPage />) },
      { path: '/tasting', element: page(<TastingPage />) },
      { path: '/tastings', element: page(<TastingsPage />) },
      { path: '/sessions', element: page(<SessionsPage />) },
      { path: '/session/new', element: page(<SessionPlanPage />) },
      { path: '/session/:id', element: page(<SessionPage />) },
      { path: '/words', element: page(<WordsPage />) },
      { path: '/other-makers', element: page(<OtherMakersPage />) },
      { path: '/over-time', element: page(<OverTimePage />) },
      { path: '/matters', element: page(<MattersPage />) },
      { path: '/trials', element: page(<AllTrialsPage />) },
      { path: '/trial/new', element: page(<AnyTrialPlanPage />) },
      { path: '/trial/:id', element: page(<AnyTrialPage />) },
      { path: '/workshop', element: page(<WorkshopPage />) },
      { path: '/opening', element: page(<OpeningPage />) },
      {
        path: '*',
        element: (
          <Empty title="There is nothing at this address.">
            The stations are in the band above; Ctrl K finds any code.
          </Empty>
        ),
      },
    ],
  },
]);

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <RouterProvider router={router} />
    </StrictMode>,
  );
