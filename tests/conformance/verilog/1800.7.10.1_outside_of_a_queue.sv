// IEEE 1800-2017 clause 7.10.1: what is read outside of a queue is the value that its elements begin with; writing there does nothing
module t;
  logic [3:0] q[$] = {5};
  int n[$];
  initial begin
    $display("%b %0d", q[3], n[0]);
    q[7] = 2;
    $display("%0d", q.size());
    q[1] = 6;
    $display("%0d %0d", q.size(), q[1]);
    void'(n.pop_back());
    $display("%0d", n.size());
  end
endmodule
//> xxxx 0
//> 1
//> 2 6
//> 0
