import { Link } from 'react-router';

export function NotFound() {
  return (
    <div className="page-notice" role="alert">
      <h1>There is nothing at this address</h1>
      <p>
        <Link to="/">To the shelf</Link>
      </p>
    </div>
  );
}
