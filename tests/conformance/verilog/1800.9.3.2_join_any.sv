// IEEE 1800-2017 clause 9.3.2: `join_any` goes on when the first of them is done, `join_none` at once
module t;
  initial begin
    fork
      #3 $display("three");
      #1 $display("one");
    join_any
    $display("any at %0t", $time);
    fork
      #1 $display("later");
    join_none
    $display("none at %0t", $time);
  end
endmodule
//> one
//> any at 1
//> none at 1
//> later
//> three
