// IEEE 1800-2017 clause 13.5.2: a queue goes into a function as a copy, or by reference as itself
module t;
  int q[$] = {1, 2};
  function automatic int emptied(int v[$]);
    emptied = v.size();
    v.delete();
  endfunction
  task automatic add(ref int v[$], input int x);
    v.push_back(x);
  endtask
  initial begin
    $display("%0d %0d", emptied(q), q.size());
    add(q, 3);
    $display("%p", q);
  end
endmodule
//> 2 2
//> '{1, 2, 3}
