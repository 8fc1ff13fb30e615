// IEEE 1800-2017 clause 25.7.1: a modport may name a function with its whole header
interface box;
  int kept = 4;
  function automatic int scaled(int by);
    return kept * by;
  endfunction
  task set(input int n);
    kept = n;
  endtask
  modport use_it(import function int scaled(int by), task set(input int n));
endinterface
module user (box.use_it b);
  initial begin
    b.set(6);
    $display("%0d", b.scaled(7));
  end
endmodule
module t;
  box b1 ();
  user u (.b(b1));
endmodule
//> 42
