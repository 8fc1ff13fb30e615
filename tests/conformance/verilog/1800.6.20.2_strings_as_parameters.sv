// IEEE 1800-2017 clause 6.20.2: of any length, in arrays too
package words;
  localparam string GREETING = "a word from a package";
endpackage
module show #(parameter string NAME = "a name that is longer than eight letters", parameter PLAIN = "digits") ();
  initial begin
    $display("[%s] %0d [%s] %0d", NAME, NAME.len(), PLAIN, $bits(PLAIN));
    if (NAME == "other") $display("it is");
  end
endmodule
module t;
  localparam string A [2] = '{"one", "twelve letters"};
  localparam string B = "b";
  localparam real R [2] = '{0.5, 1.25};
  show one();
  show #(.NAME("other"), .PLAIN("xyz")) two();
  show #(B) three();
  initial #1 begin
    $display("%s|%s|%s|%c", A[0], A[1], words::GREETING, B[0]);
    $display("%g", R[0] + R[1]);
  end
endmodule
//> [a name that is longer than eight letters] 40 [digits] 48
//> [other] 5 [xyz] 24
//> it is
//> [b] 1 [digits] 48
//> one|twelve letters|a word from a package|b
//> 1.75
