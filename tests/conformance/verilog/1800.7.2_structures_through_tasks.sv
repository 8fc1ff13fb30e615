// IEEE 1800-2017 clause 7.2: a structure goes into a task and comes out of it
module t;
  typedef struct { int n; logic [3:0] mark; } entry;
  entry e = '{1, 4'h2};
  task automatic doubled(inout entry x);
    x.n *= 2;
    x.mark = ~x.mark;
  endtask
  initial begin
    doubled(e);
    $display("%0d %h", e.n, e.mark);
  end
endmodule
//> 2 d
