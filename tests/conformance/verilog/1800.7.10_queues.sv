// IEEE 1800-2017 clause 7.10: a queue grows and shrinks at both ends, and `$` is its last place
module t;
  int q[$] = {3, 1}, x;
  initial begin
    q.push_back(7);
    q.push_front(9);
    $display("%0d: %0d %0d %0d", q.size(), q[0], q[$], q[$-1]);
    x = q.pop_front() * 100 + q.pop_back();
    $display("%0d %0d", x, q.size());
    q.insert(1, 42);
    q.delete(0);
    foreach (q[i]) $display("%0d %0d", i, q[i]);
  end
endmodule
//> 4: 9 7 1
//> 907 2
//> 0 42
//> 1 1
