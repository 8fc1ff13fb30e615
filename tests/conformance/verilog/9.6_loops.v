// IEEE 1364-2005 clause 9.6: forever, repeat, while, for, and leaving them by disable (10.3)
module t;
  integer i, n; reg [2:0] r;
  initial begin
    for (i = 0; i < 3; i = i + 1) $write("%0d ", i); $display("end %0d", i);
    n = 10; while (n > 0) begin n = n - 3; $write("%0d ", n); end $display("");
    repeat (3) $write("r"); repeat (0) $write("no"); repeat (1'bx) $write("no"); repeat (-2) $write("no"); $display("");
    i = 0;
    begin : outer
      forever begin : inner
        i = i + 1;
        if (i == 2) disable inner;
        if (i == 5) disable outer;
        $write("%0d ", i);
      end
    end
    $display("out %0d", i);
    n = 2; repeat (n) begin n = n + 5; $write("n=%0d ", n); end $display("");
    for (r = 0; r < 7; r = r + 1) i = r; $display("%0d", i);
    while (1'bx) $display("never");
    if (1'bz) $display("never"); else $display("else");
  end
endmodule
//> 0 1 2 end 3
//> 7 4 1 -2 
//> rrr
//> 1 3 4 out 5
//> n=7 n=12 
//> 6
//> else
